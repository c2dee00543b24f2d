<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import type { Schemas } from '@/api/client'
import '@/charts/points'
import ChartFrame from '@/charts/ChartFrame.vue'
import { markOf } from '@/charts/sameClass'
import { tip } from '@/charts/tip'
import { useLines } from '@/charts/useLines'
import { computed } from 'vue'

const props = defineProps<{ curves: Schemas['ChargeCurveView'][] }>()
const { picture, ofClass } = useLines()
const STAGES: Record<string, string> = {
  absorption: 'absorption',
  float: 'float',
  resting: 'off',
}

function series(c: Schemas['ChargeCurveView'], values: number[]) {
  const line = ofClass(c.battery_class, markOf(props.curves, c.id))
  return {
    ...line,
    name: c.title,
    data: values.map((v, i) => [c.hours[i]!, +v.toFixed(1)]),
    markPoint: {
      symbol: 'circle',
      symbolSize: 7,
      itemStyle: { color: line.color },
      label: { show: false },
      data: c.stages
        .filter((s) => STAGES[s.name])
        .map((s) => {
          const i = Math.max(
            0,
            c.hours.findIndex((t) => t >= s.hours),
          )
          return { name: STAGES[s.name], coord: [c.hours[i]!, values[i]!] }
        }),
    },
  }
}
/** A day is enough to see; the table tells what takes longer. */
const longest = computed(() =>
  Math.min(24, Math.max(1, ...props.curves.map((c) => c.hours.at(-1) ?? 0))),
)
const stage = (c: Schemas['ChargeCurveView'] | undefined, hour: number) =>
  c?.stages.filter((s) => s.hours <= hour + 1e-6).at(-1)?.name ?? ''

const option = (unit: string, values: (c: Schemas['ChargeCurveView']) => number[]) =>
  picture({
    tell: (items) =>
      tip(
        `${items[0]!.value[0].toFixed(1)} h`,
        ...items.map((i): [string, string, string] => [
          i.seriesName,
          `${i.value[1]} ${unit}`,
          `, ${stage(props.curves[i.seriesIndex], i.value[0])}`,
        ]),
      ),
    x: { max: Math.ceil(longest.value), name: phrase('charging.charge_chart.hours_charging') },
    y: { min: 0, max: unit === '%' ? 100 : undefined, unit },
    series: props.curves.map((c) => series(c, values(c))),
  })
const amps = computed(() => option('A', (c) => c.amps))
const charge = computed(() => option('%', (c) => c.soc.map((s) => s * 100)))
const rows = computed(() =>
  props.curves.flatMap((c) =>
    c.hours
      .map((h, i) => [
        c.title,
        `${h.toFixed(1)} h`,
        `${c.amps[i]!.toFixed(1)} A`,
        `${(c.soc[i]! * 100).toFixed(0)} %`,
        `${c.volts[i]!.toFixed(2)} V`,
        stage(c, h),
      ])
      .filter((_, i) => i % 20 === 0),
  ),
)
</script>

<template>
  <div class="grid gap-6 lg:grid-cols-2">
    <ChartFrame
      :title="phrase('charging.charge_chart.current_into_bank')"
      :option="amps"
      :height="280"
      :head="[
        phrase('charging.charge_chart.bank'),
        phrase('charging.charge_chart.after'),
        phrase('charging.charge_chart.current'),
        phrase('charging.charge_chart.charge'),
        phrase('charging.charge_chart.voltage'),
        phrase('charging.charge_chart.stage'),
      ]"
      :rows="rows"
    >
      <p class="text-sm text-soft">
        {{ phrase('charging.charge_chart.dots_mark_start_end') }}
      </p>
    </ChartFrame>
    <ChartFrame
      :title="phrase('charging.charge_chart.state_charge')"
      :option="charge"
      :height="280"
    >
      <p class="text-sm text-soft">
        {{ phrase('charging.charge_chart.rated_capacity_planned_age') }}
      </p>
    </ChartFrame>
  </div>
</template>
