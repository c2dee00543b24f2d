<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import ChartFrame from './ChartFrame.vue'
import { tip } from './tip'
import { grouped } from '@/ui/numbers'
import { useLook } from './useLook'

const plan = usePlan()
const { look } = useLook()

const steps = computed(() => {
  const { edges_h: edges, watts } = plan.rig!.day
  const points: [number, number][] = watts.map((w, i) => [edges[i]!, w])
  return [...points, [24, watts.at(-1) ?? 0] as [number, number]]
})

const clock = (h: number) =>
  `${String(Math.floor(h)).padStart(2, '0')}:${String(Math.round((h % 1) * 60) % 60).padStart(2, '0')}`

const option = computed(() => ({
  animation: false,
  grid: { left: 52, right: 8, top: 8, bottom: 24 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'axis',
    formatter: (items: { value: [number, number] }[]) =>
      tip(clock(items[0]!.value[0]), ['', `${grouped(items[0]!.value[1])} W`]),
  },
  xAxis: {
    ...look.value.axis,
    type: 'value',
    min: 0,
    max: 24,
    interval: 6,
    splitLine: { show: false },
    axisLabel: { ...look.value.text, formatter: (h: number) => clock(h) },
  },
  yAxis: {
    ...look.value.axis,
    type: 'value',
    splitNumber: 2,
    axisLabel: { ...look.value.text, formatter: (w: number) => `${grouped(w)} W` },
  },
  series: [
    {
      type: 'line',
      step: 'end',
      data: steps.value,
      symbol: 'none',
      lineStyle: { width: 1.5, color: look.value.sea },
      areaStyle: { color: look.value.sea, opacity: 0.22 },
    },
  ],
}))

const rows = computed(() =>
  plan.rig!.day.watts.map((w, i) => [
    `${clock(plan.rig!.day.edges_h[i]!)} to ${clock(plan.rig!.day.edges_h[i + 1]!)}`,
    `${grouped(w)} W`,
  ]),
)
</script>

<template>
  <ChartFrame
    :title="phrase('shared.profile_chart.power_bank_over_24')"
    :option="option"
    :height="112"
    :head="[phrase('shared.profile_chart.time'), phrase('shared.profile_chart.power')]"
    :rows="rows"
  />
</template>
