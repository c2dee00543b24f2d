<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { markOf } from '@/charts/sameClass'
import { useLines } from '@/charts/useLines'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed } from 'vue'

/** Charge left, hour by hour, with no charging: new, worn, and the old bank as it is. */
const props = defineProps<{ answer: Schemas['HowLongView'] }>()
const { look, picture, values, ofClass } = useLines()
const banks = computed(() => props.answer.banks)
const one = computed(() => banks.value.filter((b) => b.state !== 'worn'))
const STATES: Record<string, string> = {
  new: phrase('trial.how_long_part.new'),
  worn: phrase('trial.how_long_part.worn'),
  now: phrase('trial.how_long_part.now'),
}
const titleOf = (b: Schemas['RunDownView']) => `${b.title}, ${STATES[b.state]}`
const longest = computed(() =>
  Math.max(24, Math.ceil(Math.max(...banks.value.map((b) => b.soc.length - 1)) / 12) * 12),
)

function clock(hours: number): string {
  const at = props.answer.start_h + hours
  const hour = String(Math.floor(at % 24)).padStart(2, '0')
  return phrase('trial.how_long_part.day', { day: Math.floor(at / 24) + 1, clock: `${hour}:00` })
}

const series = computed(() =>
  banks.value.map((b) => {
    const thick = b.state === 'new'
    const look = thick ? {} : { width: 1.3, opacity: 0.85 }
    return {
      ...ofClass(b.battery_class, thick ? markOf(one.value, b.id) : '', look),
      name: titleOf(b),
      data: b.soc.map((soc, i) => [i, +(soc * 100).toFixed(1)]),
      emphasis: { focus: 'series' },
    }
  }),
)
const option = computed(() =>
  picture({
    grid: { right: 34 },
    tell: values(clock, '%', 0),
    x: {
      max: longest.value,
      interval: longest.value > 240 ? 48 : longest.value > 96 ? 24 : 12,
      name: phrase('trial.how_long_part.axis'),
      splitLine: { show: true, lineStyle: { color: look.value.line } },
    },
    y: { min: 0, max: 100, unit: '%' },
    series: series.value,
  }),
)
const rows = computed(() =>
  banks.value.flatMap((b) =>
    b.soc
      .map((soc, i): [number, number] => [i, soc])
      .filter(([i]) => i % 6 === 0)
      .map(([i, soc]) => [titleOf(b), clock(i), `${Math.round(soc * 100)} %`]),
  ),
)
</script>

<template>
  <ChartFrame
    :title="phrase('trial.how_long_part.title')"
    :option="option"
    :height="280"
    :head="[
      phrase('trial.how_long_part.bank'),
      phrase('trial.how_long_part.when'),
      phrase('trial.how_long_part.left'),
    ]"
    :rows="rows"
  >
    <ul class="mb-1 flex flex-wrap gap-x-5 gap-y-1 text-sm">
      <li v-for="b in one" :key="b.id" class="flex items-center gap-1.5">
        <ChemistryMark
          :battery-class="b.battery_class"
          :mark="markOf(one, b.id)"
          class="scale-90"
        />
        {{ b.title }}
      </li>
    </ul>
    <p class="mb-1 text-sm text-soft">
      {{ phrase('trial.how_long_part.thick_new') }} {{ phrase('trial.how_long_part.until') }}
    </p>
  </ChartFrame>
</template>
