<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import { Smartphone } from '@lucide/vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import MeterPanel from './MeterPanel.vue'
import StepCard from './StepCard.vue'
import StepMark from './StepMark.vue'
import { useChangeover, type Gate } from './useChangeover'

/** The order of work, a line a gate; the gate and the step where the work is are open. */
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
const gateNow = computed(
  () => view.value.gates.find((g) => g.steps.some((s) => s.key === view.value.next))?.key,
)
const countOf = (gate: Gate) =>
  phrase('changeover.work.of', {
    done: gate.steps.filter((s) => isTicked(s.key)).length,
    total: gate.steps.length,
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
  <div class="mt-4 border-t border-line">
    <details
      v-for="g in view.gates"
      :key="g.key"
      class="border-b border-line"
      :open="g.key === gateNow"
      :data-gate="g.key"
    >
      <summary class="flex min-h-12 cursor-pointer items-center gap-3 py-2">
        <StepMark :stopped="g.stopped" :done="g.done" />
        <h2 class="text-xl" :class="g.key === gateNow ? '' : 'font-normal'">{{ g.title }}</h2>
        <span class="text-soft">{{ countOf(g) }}</span>
      </summary>
      <div class="mb-4 border-t border-line sm:ml-8">
        <details
          v-for="s in g.steps"
          :key="s.key"
          class="border-b border-line last:border-b-0"
          :open="s.key === view.next"
        >
          <summary class="flex min-h-11 cursor-pointer items-center gap-3 py-1.5">
            <StepMark :stopped="s.stopped" :done="isTicked(s.key)" />
            <span :class="s.key === view.next ? 'font-semibold' : ''">{{ s.title }}</span>
          </summary>
          <StepCard :step="s" class="pb-4 pl-8 max-sm:pl-0" />
        </details>
      </div>
    </details>
  </div>
  <MeterPanel class="mt-5" />
</template>
