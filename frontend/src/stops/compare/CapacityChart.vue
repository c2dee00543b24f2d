<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import ChartFrame from '@/charts/ChartFrame.vue'
import ChartLegend from '@/charts/ChartLegend.vue'
import { useYearLines } from '@/charts/useYearLines'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const need = computed(() => (plan.rig!.need.energy.value ?? 0) / 1000)
const { look, series, overYears, rows } = useYearLines(
  computed(() => compare.value.compared_banks),
  computed(() => compare.value.capacity),
  (v) => `${v.toFixed(2)} kWh`,
)

/** What the plan needs, across the picture. */
const line = computed(() => ({
  silent: true,
  symbol: 'none',
  lineStyle: { color: look.value.ink, type: 'solid', width: 1 },
  label: {
    ...look.value.text,
    formatter: 'need',
    position: 'insideStartTop',
    color: look.value.ink,
  },
  data: [{ yAxis: need.value }],
}))

const option = computed(() =>
  overYears(
    { right: 26, top: 28 },
    { min: 0, name: 'kWh', nameLocation: 'end', nameGap: 8 },
    series.value.map((s, i) => (i === 0 ? { ...s, markLine: line.value } : s)),
  ),
)
</script>

<template>
  <ChartFrame
    :title="phrase('compare.capacity_chart.usable_energy_over_years')"
    :option="option"
    :height="300"
    :head="[
      phrase('compare.capacity_chart.bank'),
      phrase('compare.capacity_chart.years'),
      phrase('compare.capacity_chart.usable'),
    ]"
    :rows="rows"
  >
    <ChartLegend :columns="compare.compared_banks" />
    <p class="mb-1 text-sm text-soft">
      {{ phrase('compare.capacity_chart.step_up_new_bank') }}
    </p>
  </ChartFrame>
</template>
