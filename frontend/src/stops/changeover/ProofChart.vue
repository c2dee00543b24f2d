<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { useLines } from '@/charts/useLines'
import { computed } from 'vue'

/** Volts over the hours of the test: a bank as labelled, the least that is allowed, and what was read. */
const props = defineProps<{ proof: Schemas['ProofView']; batteryClass: string }>()
const { look, picture, values, ofClass } = useLines()

const line = (name: string, data: number[][], width: number, type: string) => ({
  ...ofClass(props.batteryClass, '', { width, type }),
  name,
  data,
})
const option = computed(() =>
  picture({
    tell: values((h) => `${h.toFixed(1)} h`, 'V', 2),
    x: { name: phrase('changeover.proof.hours_axis') },
    y: { scale: true, unit: 'V' },
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
  }),
)
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
