<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { computed } from 'vue'
import { useChangeover, type Measured } from './useChangeover'

/** The bank that is bought, how far the work is, and what speaks against the choice. */
const { plan, view, steps, takeBack } = useChangeover()
const share = computed(() => (view.value.total ? view.value.done / view.value.total : 0))
const stopped = computed(() => steps.value.find((step) => step.stopped))
const out = computed(() => stopped.value!.measured.filter((m) => m.verdict === 'out'))
/** What most likely is wrong. */
const cause = computed(() => out.value.flatMap((m) => m.causes)[0])
const readingOut = (m: Measured) =>
  phrase('changeover.progress.stopped', { label: m.label, value: m.value, range: m.range })
const toWork = computed(() => ({
  name: 'rig',
  params: { id: plan.rig!.id, stop: 'changeover' },
  query: { part: 'work' },
}))
</script>

<template>
  <section class="sheet mt-3 px-5 py-3" data-chosen>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <div class="flex min-w-0 grow items-center gap-3">
        <ChemistryMark :battery-class="view.battery_class" />
        <p class="min-w-0 text-lg">
          <b class="font-serif">{{ view.title }}</b> · {{ view.layout }}
        </p>
      </div>
      <p class="text-soft">
        {{ phrase('changeover.progress.steps', { done: view.done, total: view.total }) }}
        · {{ phrase('changeover.progress.work', { work: view.work }) }}
      </p>
      <p v-if="view.cost && view.spent" class="text-soft">
        {{ phrase('changeover.progress.paid') }}
        <FigureLink :figure="view.spent" :name="phrase('changeover.progress.spent')" />
        {{ phrase('changeover.progress.of') }}
        <FigureLink :figure="view.cost" :name="phrase('changeover.progress.cost')" />
      </p>
      <button type="button" class="btn btn-quiet" data-take-back @click="takeBack">
        {{ phrase('changeover.progress.take_back') }}
      </button>
    </div>
    <div class="mt-2 h-2 rounded-full bg-line" aria-hidden="true">
      <span class="block h-full rounded-full bg-sea" :style="{ width: `${share * 100}%` }" />
    </div>
    <p v-if="stopped" class="mt-2 flex gap-2 leading-snug" data-stopped>
      <SeverityMark severity="blocking" class="mt-0.5 shrink-0" />
      <span>
        <RouterLink class="font-semibold underline" :to="toWork">{{ stopped.title }}</RouterLink>:
        <template v-for="m in out" :key="m.key">{{ readingOut(m) + ' ' }}</template>
        <span v-if="cause" class="text-soft">{{ `${cause.says} ${cause.next}` }}</span>
      </span>
    </p>
    <p v-if="view.against.length" class="mt-2 flex gap-2 leading-snug" data-against>
      <SeverityMark :severity="view.hard ? 'blocking' : 'caution'" class="mt-0.5 shrink-0" />
      <span><SentenceText :tokens="view.against" /></span>
    </p>
    <p v-if="view.unplaced.length" class="mt-2 text-sm text-soft" data-unplaced>
      {{ phrase('changeover.progress.unplaced', { readings: view.unplaced.join('; ') }) }}
    </p>
  </section>
</template>
