<script setup lang="ts">
import { phrase } from '@/phrases/log'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { tip } from '@/charts/tip'
import { useLook } from '@/charts/useLook'
import { computed } from 'vue'

/** Health over the years as a fan, and each measurement with its doubt. */
const props = defineProps<{ health: Schemas['HealthView'] }>()
const { look, chemistry } = useLook()
const mark = computed(() => chemistry(props.health.battery_class))
const percent = (value: number) => +(100 * value).toFixed(1)
const pairs = (values: number[]) => values.map((v, i) => [props.health.ages[i]!, percent(v)])
const end = computed(() => percent(props.health.end))
const whole = (v: number) => `${Math.round(v)} %`

const option = computed(() => ({
  animation: false,
  grid: { left: 54, right: 24, top: 18, bottom: 44 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'axis',
    formatter: (items: { dataIndex: number; seriesId: string }[]) => {
      const i = items.find((one) => one.seriesId === 'likely')?.dataIndex
      if (i === undefined) return ''
      const h = props.health
      return tip(
        `${h.ages[i]!.toFixed(1)} ${phrase('log.health.years')}`,
        [phrase('log.health.likely'), whole(percent(h.likely[i]!))],
        [
          phrase('log.health.band'),
          phrase('log.health.doubt_text', {
            low: whole(percent(h.low[i]!)),
            high: whole(percent(h.high[i]!)),
          }),
        ],
      )
    },
  },
  xAxis: {
    ...look.value.axis,
    type: 'value',
    name: phrase('log.health.years'),
    nameLocation: 'middle',
    nameGap: 28,
    min: 0,
    max: props.health.ages.at(-1),
    axisLabel: { ...look.value.text, showMaxLabel: false },
  },
  yAxis: {
    ...look.value.axis,
    type: 'value',
    min: 0,
    max: 120,
    interval: 20,
    axisLabel: { ...look.value.text, formatter: '{value} %' },
  },
  series: [
    {
      id: 'low',
      type: 'line',
      data: pairs(props.health.low),
      stack: 'band',
      symbol: 'none',
      lineStyle: { opacity: 0 },
      silent: true,
    },
    {
      id: 'band',
      type: 'line',
      data: props.health.high.map((v, i) => [
        props.health.ages[i]!,
        percent(v - props.health.low[i]!),
      ]),
      stack: 'band',
      symbol: 'none',
      lineStyle: { opacity: 0 },
      areaStyle: { color: mark.value.color, opacity: 0.22 },
      silent: true,
    },
    {
      id: 'likely',
      type: 'line',
      data: pairs(props.health.likely),
      symbol: 'none',
      color: mark.value.color,
      lineStyle: { width: 2.5, color: mark.value.color },
      markLine: {
        silent: true,
        symbol: 'none',
        animation: false,
        lineStyle: { color: look.value.soft, width: 1.5, type: 'dashed' },
        label: { ...look.value.text, position: 'insideEndTop' },
        data: [
          {
            yAxis: end.value,
            label: { formatter: phrase('log.health.end', { end: whole(end.value) }) },
          },
          {
            xAxis: props.health.now_years,
            lineStyle: { type: 'solid' },
            label: { formatter: phrase('log.health.now'), position: 'end' },
          },
        ],
      },
    },
    ...props.health.seen.map((s) => ({
      type: 'line',
      data: [
        [s.years, percent(s.low)],
        [s.years, percent(s.health)],
        [s.years, percent(s.high)],
      ],
      symbol: 'circle',
      symbolSize: (value: number[]) => (value[1] === percent(s.health) ? 9 : 0),
      color: look.value.ink,
      lineStyle: { width: 1.2, color: look.value.ink },
      silent: true,
      z: 4,
    })),
  ],
}))
</script>

<template>
  <ChartFrame
    :title="phrase('log.health.chart', { title: health.title })"
    :option="option"
    :height="320"
  />
</template>
