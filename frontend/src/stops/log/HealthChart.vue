<script setup lang="ts">
import { phrase } from '@/phrases/log'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { tip } from '@/charts/tip'
import { useLines } from '@/charts/useLines'
import { computed } from 'vue'

/** Health over the years as a fan, and each measurement with its doubt. */
const props = defineProps<{ health: Schemas['HealthView'] }>()
const { look, picture, plain, ofClass } = useLines()
const line = computed(() => ofClass(props.health.battery_class, '', { type: 'solid' }))
const percent = (value: number) => +(100 * value).toFixed(1)
const pairs = (values: number[]) => values.map((v, i) => [props.health.ages[i]!, percent(v)])
const end = computed(() => percent(props.health.end))
const whole = (v: number) => `${Math.round(v)} %`

/** Under the band, and the band on it: drawn as one filled stretch. */
const edge = {
  type: 'line',
  stack: 'band',
  symbol: 'none',
  lineStyle: { opacity: 0 },
  silent: true,
}

function tell(items: { dataIndex: number; seriesId?: string }[]) {
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
}

const option = computed(() =>
  picture({
    grid: { top: 18, bottom: 44 },
    tell,
    x: {
      name: phrase('log.health.years'),
      max: props.health.ages.at(-1),
      axisLabel: { ...look.value.text, showMaxLabel: false },
    },
    y: { min: 0, max: 120, interval: 20, unit: '%' },
    series: [
      {
        id: 'low',
        ...edge,
        data: pairs(props.health.low),
      },
      {
        id: 'band',
        ...edge,
        data: props.health.high.map((v, i) => [
          props.health.ages[i]!,
          percent(v - props.health.low[i]!),
        ]),
        areaStyle: { color: line.value.color, opacity: 0.22 },
      },
      {
        id: 'likely',
        ...line.value,
        data: pairs(props.health.likely),
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
        ...plain(look.value.ink, { width: 1.2 }),
        data: [
          [s.years, percent(s.low)],
          [s.years, percent(s.health)],
          [s.years, percent(s.high)],
        ],
        symbol: 'circle',
        symbolSize: (value: number[]) => (value[1] === percent(s.health) ? 9 : 0),
        silent: true,
        z: 4,
      })),
    ],
  }),
)
</script>

<template>
  <ChartFrame
    :title="phrase('log.health.chart', { title: health.title })"
    :option="option"
    :height="320"
  />
</template>
