<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import SeverityMark from '@/ui/SeverityMark.vue'
import { CircleCheck, Circle, Smartphone } from '@lucide/vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import MeterPanel from './MeterPanel.vue'
import StepCard from './StepCard.vue'
import { useChangeover } from './useChangeover'

/** The order of work by gates; the next step is open. In the locker, one step at a time. */
const LockerMode = defineAsyncComponent(() => import('./LockerMode.vue'))
const { plan, view, isTicked } = useChangeover()
const route = useRoute()
const router = useRouter()
const inLocker = computed(() => typeof route.query.step === 'string')
const go = (step: string) =>
  router.push({
    name: 'rig',
    params: { id: plan.rig!.id, stop: 'changeover' },
    query: { part: 'work', step },
  })
</script>

<template>
  <LockerMode v-if="inLocker" />
  <div class="flex flex-wrap items-center gap-3">
    <button
      type="button"
      class="btn btn-main"
      data-locker-mode
      @click="go(view.next || view.gates[0]!.steps[0]!.key)"
    >
      <Smartphone :size="17" aria-hidden="true" /> {{ phrase('changeover.work.locker') }}
    </button>
    <p class="text-soft">{{ phrase('changeover.work.locker_says') }}</p>
  </div>
  <MeterPanel class="mt-3" />
  <section v-for="g in view.gates" :key="g.key" class="mt-5" :data-gate="g.key">
    <h2 class="flex flex-wrap items-center gap-2 text-xl">
      <SeverityMark v-if="g.stopped" severity="blocking" />
      {{ g.title }}
      <span class="text-base font-normal text-soft">{{
        phrase('changeover.work.of', {
          done: g.steps.filter((s) => isTicked(s.key)).length,
          total: g.steps.length,
        })
      }}</span>
    </h2>
    <div class="mt-1 border-t border-line">
      <details
        v-for="s in g.steps"
        :key="s.key"
        class="border-b border-line"
        :open="s.key === view.next"
      >
        <summary class="flex min-h-11 cursor-pointer items-center gap-3 py-1.5">
          <SeverityMark v-if="s.stopped" severity="blocking" />
          <CircleCheck
            v-else-if="isTicked(s.key)"
            :size="18"
            class="shrink-0 text-sea"
            :aria-label="phrase('changeover.work.done')"
          />
          <Circle v-else :size="18" class="shrink-0 text-soft" aria-hidden="true" />
          <span :class="s.key === view.next ? 'font-semibold' : ''">{{ s.title }}</span>
        </summary>
        <StepCard :step="s" class="pb-4 pl-8 max-sm:pl-0" />
      </details>
    </div>
  </section>
</template>
