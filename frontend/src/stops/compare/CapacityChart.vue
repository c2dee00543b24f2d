<script setup lang="ts">
import ChartFrame from '@/charts/ChartFrame.vue'
import ChartLegend from '@/charts/ChartLegend.vue'
import { numberOf } from '@/charts/sameClass'
import { useLook } from '@/charts/useLook'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

const plan = usePlan()
const { look, chemistry } = useLook()
const compare = computed(() => plan.rig!.compare)
const need = computed(() => (plan.rig!.need.energy.value ?? 0) / 1000)

const option = computed(() => ({
  animation: false,
  grid: { left: 52, right: 26, top: 28, bottom: 40 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'item',
    formatter: (p: { seriesName: string; value: [number, number] }) =>
      `${p.seriesName}<br>after ${p.value[0].toFixed(1)} years: <b>${p.value[1].toFixed(2)} kWh</b>`,
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
  yAxis: { ...look.value.axis, type: 'value', min: 0, name: 'kWh', nameGap: 8 },
  series: compare.value.capacity.map((s, i) => {
    const column = compare.value.columns[i]!
    const mark = chemistry(column.battery_class)
    const number = numberOf(compare.value.columns, column.id)
    return {
      name: column.title,
      type: 'line',
      data: s.points,
      symbol: mark.symbol,
      symbolSize: 6,
      color: mark.color,
      lineStyle: {
        width: column.stop ? 1.2 : 2.5,
        type: mark.type,
        color: mark.color,
        opacity: column.stop ? 0.6 : 1,
      },
      endLabel: { show: number !== '', formatter: number, color: mark.color, fontWeight: 700 },
      labelLayout: { moveOverlap: 'shiftY' },
      markLine:
        i === 0
          ? {
              silent: true,
              symbol: 'none',
              lineStyle: { color: look.value.ink, type: 'solid', width: 1 },
              label: {
                formatter: 'need',
                position: 'insideStartTop',
                color: look.value.ink,
                fontFamily: 'Source Sans 3 Variable',
              },
              data: [{ yAxis: need.value }],
            }
          : undefined,
    }
  }),
}))
const rows = computed(() =>
  compare.value.capacity.flatMap((s, i) =>
    s.points.map(([t, v]) => [
      compare.value.columns[i]!.title,
      t.toFixed(1),
      `${v.toFixed(2)} kWh`,
    ]),
  ),
)
</script>

<template>
  <ChartFrame
    title="Usable energy as the banks age"
    :option="option"
    :height="300"
    :head="['Bank', 'Years', 'Usable']"
    :rows="rows"
  >
    <ChartLegend :columns="compare.columns" />
    <p class="mb-1 text-sm text-soft">
      A step up is a new bank. The line across is what the plan needs, its reserve included.
    </p>
  </ChartFrame>
</template>
