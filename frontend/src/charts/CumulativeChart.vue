<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import ChartFrame from './ChartFrame.vue'
import ChartLegend from './ChartLegend.vue'
import { amount } from '@/ui/numbers'
import { useYearLines } from './useYearLines'

const props = withDefaults(defineProps<{ bands?: Schemas['BandView'][] }>(), { bands: () => [] })
const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const symbol = computed(() => plan.rig!.units.money!)
const money = (v: number) => amount(v, symbol.value, plan.document.rig.currency as string)

const { chemistry, series, overYears, rows } = useYearLines(
  computed(() => compare.value.compared_banks),
  computed(() => compare.value.cumulative),
  money,
)

/** Eight futures of ten lie in a band: its lower edge, and on it the width, filled. */
const bands = computed(() =>
  props.bands.flatMap((b) => {
    const column = compare.value.compared_banks.find((c) => c.id === b.id)
    if (!column || column.out) return []
    const color = chemistry(column.battery_class).color
    const line = { lineStyle: { opacity: 0 }, symbol: 'none', silent: true, type: 'line', z: 1 }
    return [
      { ...line, stack: b.id, data: b.years.map((t, i) => [t, b.p10[i]]) },
      {
        ...line,
        stack: b.id,
        stackStrategy: 'all',
        areaStyle: { color, opacity: 0.13 },
        data: b.years.map((t, i) => [t, b.p90[i]! - b.p10[i]!]),
      },
    ]
  }),
)
const most = computed(() => {
  const fit = compare.value.cumulative.filter((_, i) => !compare.value.compared_banks[i]!.out)
  const lines = (fit.length ? fit : compare.value.cumulative).flatMap((s) =>
    s.points.map((p) => p[1]),
  )
  const tops = props.bands
    .filter((b) => compare.value.compared_banks.some((c) => c.id === b.id && !c.out))
    .map((b) => b.p90.at(-1)!)
  const top = Math.max(1, ...lines, ...tops.map((t) => Math.min(t, 2.2 * Math.max(...lines))))
  const step = 10 ** Math.floor(Math.log10(top))
  return Math.ceil(top / (step / 2)) * (step / 2)
})

const option = computed(() =>
  overYears({ left: 66, right: 22, top: 26 }, { unit: money, max: most.value }, [
    ...bands.value,
    ...series.value,
  ]),
)
</script>

<template>
  <ChartFrame
    :title="phrase('shared.cumulative_chart.total_spent_over_years')"
    :option="option"
    :height="300"
    :head="[
      phrase('shared.cumulative_chart.bank'),
      phrase('shared.cumulative_chart.years'),
      phrase('shared.cumulative_chart.total_spent'),
    ]"
    :rows="rows"
  >
    <ChartLegend :columns="compare.compared_banks" />
    <p class="mb-1 text-sm text-soft">
      {{ phrase('shared.cumulative_chart.steps_up_replacements_step')
      }}<template v-if="bands.length">
        {{ ' ' }}{{ phrase('shared.cumulative_chart.eight_ten_scenarios_bank') }}</template
      >
    </p>
  </ChartFrame>
</template>
