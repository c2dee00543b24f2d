<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, type Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { tip } from '@/charts/tip'
import { useLines } from '@/charts/useLines'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { useUi } from '@/stores/ui'
import { computed, ref } from 'vue'
import { tryInPlan } from '@/stores/tryInPlan'

/** What is used, by the monitor, beside what the plan says; what differs can be tried in the plan. */
const plan = usePlan()
const ui = useUi()
const { look, picture, plain } = useLines()
const kind = ref('')
const { answer } = useAsked<Schemas['MeasuredUseView']>(
  () => kind.value,
  (signal) =>
    api.GET('/api/rigs/{rig_id}/log/use', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { kind: kind.value } },
    }),
)
const shown = computed(() =>
  answer.value && (answer.value.days || answer.value.kinds.length > 1) ? answer.value : null,
)

const attempt = (finding: Schemas['UseFindingView']) =>
  tryInPlan(plan, ui, finding.label, finding.operations, phrase('log.use.tried'))

const two = (hour: number) => String(hour).padStart(2, '0')
const watts = (w: number | null | undefined) => (w == null ? '—' : `${Math.round(w)} W`)
// Steps: each hour holds its power from its beginning to its end.
const steps = (of: (number | null)[]) => ({
  step: 'end',
  connectNulls: false,
  data: [...of, of.at(-1)].map((w, h) => [h, w]),
})
const option = computed(() => {
  const u = shown.value!
  return picture({
    grid: { left: 58, right: 18, bottom: 30 },
    tell: (items) => {
      const h = Math.min(23, items[0]?.dataIndex ?? 0)
      return tip(
        phrase('log.use.clock', { hour: two(h), next: two(h + 1) }),
        [phrase('log.use.by_monitor'), watts(u.measured_w[h])],
        [phrase('log.use.by_plan'), watts(u.planned_w[h])],
      )
    },
    x: { max: 24, interval: 4, unit: (h: number) => `${two(h)}:00` },
    y: { unit: 'W', splitNumber: 3 },
    series: [
      {
        ...plain(look.value.soft, { width: 1.5, type: 'dashed' }),
        ...steps(u.planned_w),
        name: phrase('log.use.by_plan'),
      },
      {
        ...plain(look.value.sea, { width: 2.5 }),
        ...steps(u.measured_w),
        name: phrase('log.use.by_monitor'),
      },
    ],
  })
})
</script>

<template>
  <section v-if="shown" class="sheet p-4" data-use>
    <h2 class="text-xl">{{ phrase('log.use.title') }}</h2>
    <p class="flex flex-wrap items-center gap-x-3 gap-y-1 text-soft">
      <label v-if="shown.kinds.length > 1" class="flex items-center gap-2 whitespace-nowrap">
        {{ phrase('log.use.kind') }}
        <select
          class="field"
          :value="shown.kind"
          @change="kind = ($event.target as HTMLSelectElement).value"
        >
          <option v-for="k in shown.kinds" :key="k.id" :value="k.id">{{ k.name }}</option>
        </select>
      </label>
      <span v-else>{{ shown.kinds[0]!.name }}</span>
      <span>{{ phrase('log.use.of_days', { count: shown.days }) }}</span>
    </p>
    <p class="mt-1 flex flex-wrap gap-x-6 font-semibold">
      <span v-if="shown.measured">{{ phrase('log.use.measured', { day: shown.measured }) }}</span>
      <span>{{ phrase('log.use.planned', { day: shown.planned }) }}</span>
    </p>
    <ul class="mt-1 max-w-3xl">
      <li v-for="f in shown.findings" :key="f.key" class="mt-1" :data-use-finding="f.key">
        {{ f.text }}
        <button v-if="f.label" type="button" class="btn mt-1 block" @click="attempt(f)">
          {{ f.label }}
        </button>
      </li>
    </ul>
    <ChartFrame :title="phrase('log.use.chart')" :option="option" :height="190" class="mt-3">
      <p class="flex gap-5 text-sm text-soft">
        <span
          ><i class="mr-1.5 inline-block w-6 border-t-[3px] border-sea align-middle" />{{
            phrase('log.use.by_monitor')
          }}</span
        >
        <span
          ><i class="mr-1.5 inline-block w-6 border-t-2 border-dashed border-soft align-middle" />{{
            phrase('log.use.by_plan')
          }}</span
        >
      </p>
    </ChartFrame>
  </section>
</template>
