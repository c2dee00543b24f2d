<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import type { Schemas } from '@/api/client'
import DataTable from '@/charts/DataTable.vue'
import { markOf } from '@/charts/sameClass'
import { tip } from '@/charts/tip'
import { useLook } from '@/charts/useLook'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import VChart from 'vue-echarts'
import '@/charts/setup'
import DayStrip from './DayStrip.vue'

const props = defineProps<{
  run: Schemas['TrialRunView']
  banks: Schemas['BankRunView'][]
  moment: number
}>()
const emit = defineEmits<{ look: [step: number] }>()
const { look, chemistry } = useLook()
const LEFT = 54
const RIGHT = 34
const chart = ref<{ convertFromPixel: (f: object, p: number[]) => number[] } | null>(null)
const hours = computed(() => props.run.days.length * 24)
const step = computed(() => props.run.step_h)

const PANES = [
  { key: 'soc', name: phrase('trial.trial_chart.charge'), unit: '%', top: 8, height: 170 },
  { key: 'volts', name: phrase('trial.trial_chart.voltage'), unit: 'V', top: 200, height: 84 },
  { key: 'amps', name: phrase('trial.trial_chart.current'), unit: 'A', top: 306, height: 84 },
] as const

function points(bank: Schemas['BankRunView'], key: 'soc' | 'volts' | 'amps') {
  const scale = key === 'soc' ? 100 : 1
  // An open BMS shows no volts: the line ends there.
  return bank[key].map((v, i) => [
    +(i * step.value).toFixed(2),
    key === 'volts' && v === 0 ? null : +(v * scale).toFixed(2),
  ])
}

function lines(bank: Schemas['BankRunView'], pane: number) {
  const mark = chemistry(bank.battery_class)
  const number = markOf(props.run.banks, bank.id)
  const worn = bank.id === 'old'
  return {
    id: `${bank.id}-${pane}`,
    name: bank.title,
    type: 'line',
    xAxisIndex: pane,
    yAxisIndex: pane,
    symbol: 'none',
    connectNulls: false,
    step: pane === 2 ? 'end' : undefined,
    sampling: pane === 0 ? 'lttb' : 'minmax',
    color: mark.color,
    lineStyle: { width: worn ? 1.3 : 2, type: mark.type, color: mark.color },
    data: points(bank, PANES[pane]!.key),
    labelLayout: { moveOverlap: 'shiftY' },
    endLabel: {
      show: pane === 0,
      formatter: number || bank.code,
      color: mark.color,
      fontWeight: 700,
    },
  }
}

/** The banks that are not picked: a faint line of the charge, to see where they go otherwise. */
const faint = computed(() =>
  props.run.banks
    .filter((bank) => !props.banks.some((b) => b.id === bank.id))
    .map((bank) => ({
      id: `${bank.id}-faint`,
      type: 'line',
      xAxisIndex: 0,
      yAxisIndex: 0,
      symbol: 'none',
      silent: true,
      sampling: 'lttb',
      lineStyle: { width: 1, color: look.value.soft, opacity: 0.35 },
      data: points(bank, 'soc'),
    })),
)
const nights = computed(() => ({
  id: 'night',
  type: 'line',
  xAxisIndex: 0,
  yAxisIndex: 0,
  data: [],
  silent: true,
  markArea: {
    silent: true,
    itemStyle: { color: look.value.ink, opacity: 0.07 },
    data: props.run.night.map((n) => [{ xAxis: n.begins }, { xAxis: n.ends }]),
  },
}))
const dark = computed(() =>
  props.banks.flatMap((bank) =>
    bank.events
      .filter((e) => e.severity === 'blocking')
      .map((e) => ({
        name: bank.title,
        value: [e.step * step.value, (bank.soc[e.step] ?? 0) * 100],
        itemStyle: { color: chemistry(bank.battery_class).color },
      })),
  ),
)
const pointer = computed(() =>
  PANES.map((_, pane) => ({
    id: `moment-${pane}`,
    type: 'line',
    xAxisIndex: pane,
    yAxisIndex: pane,
    data: [],
    silent: true,
    markLine: {
      silent: true,
      symbol: 'none',
      animation: false,
      label: { show: false },
      lineStyle: { color: look.value.sea, width: 2, type: 'solid' },
      data: [{ xAxis: props.moment * step.value }],
    },
  })),
)

const option = computed(() => ({
  animation: false,
  grid: PANES.map((p) => ({ left: LEFT, right: RIGHT, top: p.top, height: p.height })),
  axisPointer: { link: [{ xAxisIndex: 'all' }], lineStyle: { color: look.value.soft } },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'axis',
    formatter: (items: { axisIndex: number; seriesName: string; value: [number, number] }[]) => {
      const named = items.filter((i) => i.seriesName && i.value?.[1] != null)
      if (!named.length) return ''
      const h = named[0]!.value[0]
      const clock = `${String(Math.floor(h % 24)).padStart(2, '0')}:${String(Math.round((h % 1) * 60)).padStart(2, '0')}`
      return tip(
        phrase('trial.trial_chart.day', { h: Math.floor(h / 24) + 1, clock }),
        ...named.map((i): [string, string] => [
          i.seriesName,
          `${i.value[1]} ${PANES[i.axisIndex]?.unit ?? ''}`,
        ]),
      )
    },
  },
  xAxis: PANES.map((_, i) => ({
    ...look.value.axis,
    gridIndex: i,
    type: 'value',
    min: 0,
    max: hours.value,
    interval: hours.value > 480 ? 72 : hours.value > 240 ? 48 : 24,
    axisLabel: {
      ...look.value.text,
      show: i === PANES.length - 1,
      formatter: (h: number) => phrase('trial.trial_chart.day_h', { h: h / 24 + 1 }),
      hideOverlap: true,
      showMaxLabel: false,
    },
    splitLine: { show: true, lineStyle: { color: look.value.line } },
  })),
  yAxis: PANES.map((p, i) => ({
    ...look.value.axis,
    gridIndex: i,
    type: 'value',
    scale: p.key !== 'soc',
    min: p.key === 'soc' ? 0 : undefined,
    max: p.key === 'soc' ? 100 : undefined,
    splitNumber: 2,
    interval: p.key === 'soc' ? 25 : undefined,
    axisLabel: { ...look.value.text, formatter: (v: number) => `${v} ${p.unit}` },
  })),
  series: [
    nights.value,
    ...faint.value,
    ...PANES.flatMap((_, pane) => props.banks.map((bank) => lines(bank, pane))),
    {
      id: 'dark',
      type: 'scatter',
      xAxisIndex: 0,
      yAxisIndex: 0,
      symbol: 'triangle',
      symbolRotate: 180,
      symbolSize: 11,
      symbolOffset: [0, -9],
      data: dark.value,
    },
    ...pointer.value,
  ],
}))

// Drawn a moment after the figures, so that a slider does not wait for it.
const drawn = shallowRef(option.value)
let timer = 0
watch(option, (next) => {
  clearTimeout(timer)
  timer = window.setTimeout(() => (drawn.value = next), 60)
})
onBeforeUnmount(() => clearTimeout(timer))

function pick(event: { offsetX: number; offsetY: number }) {
  const at = chart.value?.convertFromPixel({ gridIndex: 0 }, [event.offsetX, event.offsetY])
  if (at) emit('look', Math.round(at[0]! / step.value))
}

const rows = computed(() =>
  props.banks.flatMap((bank) =>
    bank.volts
      .map((v, i) => [
        bank.title,
        phrase('trial.trial_chart.day_00', {
          i: Math.floor((i * step.value) / 24) + 1,
          i2: String(Math.floor((i * step.value) % 24)).padStart(2, '0'),
        }),
        `${(bank.soc[i]! * 100).toFixed(0)} %`,
        `${v.toFixed(2)} V`,
        `${bank.amps[i]!.toFixed(1)} A`,
      ])
      .filter((_, i) => i % 24 === 0),
  ),
)
</script>

<template>
  <figure class="min-w-0" data-trial-chart>
    <DayStrip :days="run.days" :left="LEFT" :right="RIGHT" />
    <VChart
      ref="chart"
      :option="drawn"
      :update-options="{ replaceMerge: ['series'] }"
      autoresize
      :style="{ height: '424px' }"
      role="img"
      :aria-label="phrase('trial.trial_chart.state_charge_voltage_current')"
      @zr:click="pick"
    />
    <div :style="{ paddingLeft: `${LEFT - 8}px`, paddingRight: `${RIGHT - 8}px` }">
      <input
        type="range"
        class="w-full accent-sea"
        min="0"
        :max="run.days.length * 96 - 1"
        :value="moment"
        :aria-label="phrase('trial.trial_chart.selected_moment')"
        data-scrub
        @input="emit('look', Number(($event.target as HTMLInputElement).value))"
      />
    </div>
    <p class="text-sm text-soft">
      {{ phrase('trial.trial_chart.grey_night_plug_hook') }}
    </p>
    <DataTable
      :head="[
        phrase('trial.trial_chart.bank'),
        phrase('trial.trial_chart.when'),
        phrase('trial.trial_chart.charge'),
        phrase('trial.trial_chart.voltage'),
        phrase('trial.trial_chart.current'),
      ]"
      :rows="rows"
    />
  </figure>
</template>
