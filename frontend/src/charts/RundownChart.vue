<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import ChartFrame from './ChartFrame.vue'
import ChartLegend from './ChartLegend.vue'
import { numberOf } from './sameClass'
import { tip } from './tip'
import { useLook } from './useLook'

const plan = usePlan()
const { look, chemistry } = useLook()
const compare = computed(() => plan.rig!.compare)
const hours = computed(() => compare.value.rundown_hours)
const longest = computed(() => hours.value.at(-1) ?? 24)
const columnOf = (id: string) => compare.value.compared_banks.find((c) => c.id === id)!

/** The first point of a new bank bears its number, where its class has several. */
function first(id: string, worn: boolean, kwh: number, color: string) {
  const number = worn ? '' : numberOf(compare.value.compared_banks, id)
  const label = { show: true, formatter: number, position: 'right', color, fontWeight: 700 }
  return number
    ? { value: [hours.value[0], kwh], symbol: 'circle', symbolSize: 3, label }
    : [hours.value[0], kwh]
}

const series = computed(() =>
  compare.value.rundown.map((s) => {
    const column = columnOf(s.id)
    const mark = chemistry(column.battery_class)
    const worn = s.state === 'worn'
    return {
      name: `${column.title}, ${worn ? phrase('shared.rundown_chart.end_life') : 'new'}`,
      type: 'line',
      data: s.kwh.map((kwh, i) => (i ? [hours.value[i], kwh] : first(s.id, worn, kwh, mark.color))),
      showSymbol: true,
      symbol: 'none',
      color: mark.color,
      lineStyle: {
        width: worn ? 1.3 : 2.5,
        type: mark.type,
        color: mark.color,
        opacity: worn ? 0.85 : 1,
      },
      emphasis: { focus: 'series' },
    }
  }),
)

function clock(hours: number): string {
  const at = compare.value.rundown_start_h + hours
  const hour = Math.floor(at % 24)
  return phrase('shared.rundown_chart.day', {
    at: Math.floor(at / 24) + 1,
    hour: String(hour).padStart(2, '0'),
    at2: at % 1 ? '30' : '00',
  })
}

const option = computed(() => ({
  animation: false,
  grid: { left: 58, right: 14, top: 14, bottom: 40 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'axis',
    formatter: (items: { seriesName: string; value: [number, number] }[]) =>
      tip(
        clock(items[0]!.value[0]),
        ...items.map((i): [string, string] => [i.seriesName, `${i.value[1].toFixed(2)} kWh`]),
      ),
  },
  xAxis: {
    ...look.value.axis,
    type: 'value',
    min: 0,
    interval: longest.value > 96 ? 24 : 12,
    max: longest.value,
    name: phrase('shared.rundown_chart.hours_without_charging_full', {
      rundown_start_h: compare.value.rundown_start_h,
    }),
    nameLocation: 'middle',
    nameGap: 26,
    splitLine: { show: true, lineStyle: { color: look.value.line } },
  },
  yAxis: {
    ...look.value.axis,
    type: 'value',
    min: 0,
    axisLabel: { ...look.value.text, formatter: (v: number) => `${v} kWh` },
  },
  series: series.value,
}))

const rows = computed(() =>
  compare.value.rundown.flatMap((s) =>
    s.kwh
      .map((kwh, i): [number, number] => [hours.value[i]!, kwh])
      .filter((_, i) => i % 12 === 0)
      .map(([h, kwh]) => [
        `${columnOf(s.id).title}, ${s.state}`,
        clock(h),
        `${kwh.toFixed(2)} kWh`,
      ]),
  ),
)
</script>

<template>
  <ChartFrame
    :title="phrase('shared.rundown_chart.usable_energy_left_hour')"
    :option="option"
    :height="300"
    :head="[
      phrase('shared.rundown_chart.bank'),
      phrase('shared.rundown_chart.when'),
      phrase('shared.rundown_chart.left'),
    ]"
    :rows="rows"
  >
    <ChartLegend :columns="compare.compared_banks" />
    <p class="mb-1 text-sm text-soft">{{ phrase('shared.rundown_chart.thick_line_new_thin') }}</p>
  </ChartFrame>
</template>
