<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import ChartFrame from './ChartFrame.vue'
import ChartLegend from './ChartLegend.vue'
import { numberOf } from './sameClass'
import { grouped, useLook } from './useLook'

const plan = usePlan()
const { look, chemistry } = useLook()
const compare = computed(() => plan.rig!.compare)
const symbol = computed(() => plan.rig!.units.currency)
const money = (v: number) =>
  `${symbol.value}${symbol.value.length > 2 ? '\u202f' : ''}${grouped(v)}`

const series = computed(() =>
  compare.value.cumulative.map((s, i) => {
    const column = compare.value.columns[i]!
    const mark = chemistry(column.battery_class)
    const number = numberOf(compare.value.columns, column.id)
    return {
      name: column.title,
      type: 'line',
      data: s.points,
      symbol: mark.symbol,
      symbolSize: 6,
      showAllSymbol: false,
      color: mark.color,
      lineStyle: { width: 2.5, type: mark.type, color: mark.color },
      endLabel: { show: number !== '', formatter: number, color: mark.color, fontWeight: 700 },
      labelLayout: { moveOverlap: 'shiftY' },
      emphasis: { focus: 'series' },
    }
  }),
)

const option = computed(() => ({
  animation: false,
  grid: { left: 66, right: 22, top: 14, bottom: 40 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'item',
    formatter: (p: { seriesName: string; value: [number, number] }) =>
      `${p.seriesName}<br>after ${p.value[0].toFixed(1)} years: <b>${money(p.value[1])}</b>`,
  },
  xAxis: {
    ...look.value.axis,
    type: 'value',
    min: 0,
    max: compare.value.cumulative[0]?.points.at(-1)?.[0],
    name: 'years from now',
    nameLocation: 'middle',
    nameGap: 26,
    splitLine: { show: false },
    minInterval: 1,
  },
  yAxis: {
    ...look.value.axis,
    type: 'value',
    axisLabel: { ...look.value.text, formatter: money },
  },
  series: series.value,
}))

const rows = computed(() =>
  compare.value.cumulative.flatMap((s, i) =>
    s.points.map(([t, v]) => [compare.value.columns[i]!.title, t.toFixed(1), money(v)]),
  ),
)
</script>

<template>
  <ChartFrame
    title="Money spent so far, over the years you keep the rig"
    :option="option"
    :height="300"
    :head="['Bank', 'Years', 'Spent so far']"
    :rows="rows"
  >
    <ChartLegend :columns="compare.columns" />
    <p class="mb-1 text-sm text-soft">
      Steps up are replacements; the step down at the end is what the unused life is worth.
    </p>
  </ChartFrame>
</template>
