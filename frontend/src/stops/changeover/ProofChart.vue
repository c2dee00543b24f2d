<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { tip } from '@/charts/tip'
import { useLook } from '@/charts/useLook'
import { computed } from 'vue'

/** Volts over the hours of the test: a bank as labelled, the least that is allowed, and what was read. */
const props = defineProps<{ proof: Schemas['ProofView']; batteryClass: string }>()
const { look, chemistry } = useLook()
const mark = computed(() => chemistry(props.batteryClass))

const line = (name: string, data: number[][], width: number, type: unknown) => ({
  name,
  type: 'line',
  data,
  symbol: 'none',
  color: mark.value.color,
  lineStyle: { width, type, color: mark.value.color },
})
const option = computed(() => ({
  animation: false,
  grid: { left: 52, right: 20, top: 14, bottom: 40 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'axis',
    formatter: (items: { seriesName: string; value: [number, number] }[]) =>
      tip(
        `${items[0]!.value[0].toFixed(1)} h`,
        ...items.map((i): [string, string] => [i.seriesName, `${i.value[1].toFixed(2)} V`]),
      ),
  },
  xAxis: {
    ...look.value.axis,
    type: 'value',
    min: 0,
    name: phrase('changeover.proof.hours_axis'),
    nameLocation: 'middle',
    nameGap: 26,
  },
  yAxis: {
    ...look.value.axis,
    type: 'value',
    scale: true,
    axisLabel: { ...look.value.text, formatter: (v: number) => `${v} V` },
  },
  series: [
    line(phrase('changeover.proof.labelled'), props.proof.curve, 2.5, 'solid'),
    line(phrase('changeover.proof.least'), props.proof.least, 1.5, 'dashed'),
    {
      name: phrase('changeover.proof.read'),
      type: 'scatter',
      data: props.proof.measured,
      symbolSize: 9,
      color: look.value.ink,
    },
  ],
}))
</script>

<template>
  <ChartFrame
    :title="phrase('changeover.proof.chart')"
    :option="option"
    :height="300"
    :head="[
      phrase('changeover.proof.minutes'),
      phrase('changeover.proof.volts'),
      phrase('changeover.proof.amps'),
    ]"
    :rows="proof.rows"
  >
    <p class="mb-1 text-sm text-soft">{{ phrase('changeover.proof.legend') }}</p>
  </ChartFrame>
</template>
