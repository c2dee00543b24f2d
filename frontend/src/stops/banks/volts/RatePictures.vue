<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { markOf } from '@/charts/sameClass'
import { useLines } from '@/charts/useLines'
import { computed } from 'vue'

const props = defineProps<{ rates: Schemas['RatesView']; curves: Schemas['CurveView'][] }>()
const { look, picture, values, plain, ofClass } = useLines()

const line = (c: Schemas['CurveView'], data: number[][], thin = false) => ({
  ...ofClass(
    c.battery_class,
    thin ? '' : markOf(props.curves, c.id),
    thin ? { width: 1.2 } : undefined,
  ),
  name: thin ? phrase('banks.rate_pictures.title_charge_alone', { title: c.title }) : c.title,
  data,
})
const delivered = computed(() =>
  picture({
    tell: values((x) => `${x.toFixed(1)} A`, 'Ah', 1),
    x: {
      type: 'log',
      min: props.rates.amps[0],
      max: props.rates.amps.at(-1),
      name: phrase('banks.rate_pictures.steady_current'),
      unit: (v: number) => `${+v.toPrecision(2)}`,
    },
    y: { min: 0, unit: 'Ah' },
    series: props.curves.flatMap((c) => [
      line(
        c,
        c.by_volts.map((ah, i) => [props.rates.amps[i]!, ah]),
      ),
      line(
        c,
        c.by_charge.map((ah, i) => [props.rates.amps[i]!, ah]),
        true,
      ),
    ]),
  }),
)
const longest = computed(() => Math.max(...props.curves.map((c) => c.hours.at(-1) ?? 0), 0.01))
const inMinutes = computed(() => longest.value < 3)
const time = (h: number) => (inMinutes.value ? h * 60 : h)
const volts = computed(() =>
  picture({
    tell: values((x) => `${x.toFixed(1)} ${inMinutes.value ? 'min' : 'h'}`, 'V', 1),
    x: { name: `${inMinutes.value ? 'minutes' : 'hours'} at ${props.rates.current}` },
    y: { scale: true, unit: 'V' },
    series: [
      ...props.curves.map((c) =>
        line(
          c,
          c.volts.map((v, i) => [time(c.hours[i]!), v]),
        ),
      ),
      {
        ...plain(look.value.soft, { width: 1, type: [3, 3] }),
        name: 'cut-off',
        data: [
          [0, props.rates.cut_off_v],
          [time(longest.value), props.rates.cut_off_v],
        ],
      },
    ],
  }),
)
const rows = computed(() =>
  props.curves.flatMap((c) =>
    c.by_volts
      .map((ah, i) => [
        c.title,
        `${props.rates.amps[i]!.toFixed(1)} A`,
        `${ah.toFixed(0)} Ah`,
        `${c.by_charge[i]!.toFixed(0)} Ah`,
      ])
      .filter((_, i) => i % 6 === 0),
  ),
)
const voltRows = computed(() =>
  props.curves.flatMap((c) =>
    c.volts
      .map((v, i) => [
        c.title,
        `${time(c.hours[i]!).toFixed(1)} ${inMinutes.value ? 'min' : 'h'}`,
        `${v.toFixed(2)} V`,
      ])
      .filter((_, i) => i % 12 === 0),
  ),
)
</script>

<template>
  <div class="grid gap-6 lg:grid-cols-2">
    <ChartFrame
      :title="phrase('banks.rate_pictures.capacity_delivered_full_current')"
      :option="delivered"
      :height="280"
      :head="[
        phrase('banks.rate_pictures.bank'),
        phrase('banks.rate_pictures.current'),
        phrase('banks.rate_pictures.down_cut_off'),
        phrase('banks.rate_pictures.charge_alone'),
      ]"
      :rows="rows"
    >
      <p class="text-sm text-soft">
        {{ phrase('banks.rate_pictures.thick_until_inverter_cuts') }}
      </p>
    </ChartFrame>
    <ChartFrame
      :title="phrase('banks.rate_pictures.voltage_until_empty', { current: rates.current })"
      :option="volts"
      :height="280"
      :head="[
        phrase('banks.rate_pictures.bank'),
        phrase('banks.rate_pictures.after'),
        phrase('banks.rate_pictures.voltage'),
      ]"
      :rows="voltRows"
    >
      <p class="text-sm text-soft">
        {{
          phrase('banks.rate_pictures.dotted_inverter_cuts_off', {
            cut_off_v: rates.cut_off_v.toFixed(1),
          })
        }}
      </p>
    </ChartFrame>
  </div>
</template>
