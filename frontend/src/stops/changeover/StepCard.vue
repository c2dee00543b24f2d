<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import PictureStrip from '@/ui/PictureStrip.vue'
import PlanField from '@/ui/PlanField.vue'
import { Clock, TriangleAlert, Users } from '@lucide/vue'
import { computed } from 'vue'
import ExpectedReading from './ExpectedReading.vue'
import MeasureField from './MeasureField.vue'
import { useChangeover, type Measured, type Step } from './useChangeover'

/** One step with everything that belongs to it; large in the locker. */
const props = defineProps<{ step: Step; large?: boolean }>()
const { noted, tick, tickedOn, isTicked } = useChangeover()
/** What all readings of the step should be, where that is one and the same. */
const expected = computed(() => {
  const [first, ...others] = props.step.measured
  const said = (m: Measured) => [m.likely, m.range, m.under].join()
  const same = others.every((m) => said(m) === said(first!))
  return first && others.length && same ? first : null
})
const PEOPLE = ['', '', phrase('changeover.step.two'), phrase('changeover.step.hoist')]
</script>

<template>
  <div :data-step="step.key" :class="large ? 'text-lg' : ''">
    <p class="text-soft">{{ step.why }}</p>
    <p v-if="step.how" class="mt-1 text-pretty">{{ step.how }}</p>
    <p class="mt-1 flex flex-wrap gap-x-4 text-sm text-soft">
      <span class="inline-flex items-center gap-1"
        ><Clock :size="15" aria-hidden="true" />{{
          phrase('changeover.step.minutes', { count: step.minutes })
        }}</span
      >
      <span v-if="step.people > 1" class="inline-flex items-center gap-1"
        ><Users :size="15" aria-hidden="true" />{{ PEOPLE[step.people] }}</span
      >
    </p>
    <p
      v-for="c in step.cautions"
      :key="c"
      class="mt-1 flex gap-2 leading-snug text-caution"
      data-caution
    >
      <TriangleAlert :size="18" class="mt-0.5 shrink-0" aria-hidden="true" />{{ c }}
    </p>
    <p v-if="step.late" class="mt-1 text-blocking">{{ step.late }}</p>
    <div v-if="step.measured.length" class="mt-2 divide-y divide-line border-y border-line">
      <p v-if="expected" class="py-2" data-expected>
        <ExpectedReading :measured="expected" each />
      </p>
      <MeasureField
        v-for="m in step.measured"
        :key="m.key"
        :measured="m"
        :large="large"
        :told="expected !== null"
      />
    </div>
    <PlanField
      v-if="step.stopped || step.measured.some((m) => m.verdict === 'out')"
      class="mt-3"
      :path="noted('passed', step.key)"
      :label="phrase('changeover.step.pass')"
      :hint="phrase('changeover.step.pass_hint')"
      text
    />
    <div class="mt-3 grid items-end gap-3 sm:grid-cols-[auto_1fr]">
      <button
        type="button"
        class="btn"
        :class="isTicked(step.key) ? '' : 'btn-main'"
        :disabled="step.stopped && !isTicked(step.key)"
        data-tick
        @click="tick(step.key, step.title, !isTicked(step.key))"
      >
        {{
          isTicked(step.key)
            ? phrase('changeover.step.undo', { on: tickedOn(step.key) })
            : phrase('changeover.step.done')
        }}
      </button>
      <PlanField
        :path="noted('notes', step.key)"
        :label="phrase('changeover.step.note')"
        :called="phrase('changeover.step.note_of', { title: step.title })"
        text
      />
    </div>
    <PictureStrip class="mt-2" :place="`step:${step.key}`" :of="step.title" />
  </div>
</template>
