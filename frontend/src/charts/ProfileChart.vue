<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import ChartFrame from './ChartFrame.vue'
import { tip } from './tip'
import { grouped } from '@/ui/numbers'
import { useLines } from './useLines'

const plan = usePlan()
const { look, picture, plain } = useLines()

const steps = computed(() => {
  const { edges_h: edges, watts } = plan.rig!.day
  const points: [number, number][] = watts.map((w, i) => [edges[i]!, w])
  return [...points, [24, watts.at(-1) ?? 0] as [number, number]]
})

const clock = (h: number) =>
  `${String(Math.floor(h)).padStart(2, '0')}:${String(Math.round((h % 1) * 60) % 60).padStart(2, '0')}`

const option = computed(() =>
  picture({
    grid: { left: 52, right: 8, top: 8, bottom: 24 },
    tell: (items) => tip(clock(items[0]!.value[0]), ['', `${grouped(items[0]!.value[1])} W`]),
    x: { max: 24, interval: 6, splitLine: { show: false }, unit: clock },
    y: { splitNumber: 2, unit: (w: number) => `${grouped(w)} W` },
    series: [
      {
        ...plain(look.value.sea, { width: 1.5 }),
        step: 'end',
        data: steps.value,
        areaStyle: { color: look.value.sea, opacity: 0.22 },
      },
    ],
  }),
)

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
