<script setup lang="ts">
import { phrase } from '@/phrases/log'
import type { Schemas } from '@/api/client'
import { tip } from '@/charts/tip'
import { useLook } from '@/charts/useLook'
import { dayOf, when } from '@/ui/when'
import { computed } from 'vue'
import VChart from 'vue-echarts'
import '@/charts/setup'

/** Each quantity in a pane of its own, over one time: a band from the lowest to the highest of each stretch. */
const props = defineProps<{ chart: Schemas['MonitorChartView'] }>()
const { look } = useLook()
const PANE = 104
const GAP = 36
const height = computed(() => props.chart.series.length * (PANE + GAP) + 26)
const top = (i: number) => 28 + i * (PANE + GAP)
const ends = computed(() => [props.chart.from_day * 864e5, (props.chart.to_day + 1) * 864e5])
const clock = (at: number, short = false) => (short ? dayOf(at) : when(at, 'UTC'))

const option = computed(() => ({
  animation: false,
  grid: props.chart.series.map((_, i) => ({ left: 54, right: 22, top: top(i), height: PANE })),
  axisPointer: { link: [{ xAxisIndex: 'all' }], lineStyle: { color: look.value.soft } },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'axis',
    formatter: (items: { seriesName: string; value: number[] }[]) => {
      const told = items.filter((i) => i.seriesName && i.value[1] != null && i.value[2] != null)
      if (!told.length) return ''
      return tip(
        clock(told[0]!.value[0]!),
        ...told.map((i): [string, string] => {
          const s = props.chart.series.find((one) => one.key === i.seriesName)!
          const [low, high] = [i.value[1], i.value[2]].map((v) => String(v).replace('-', '−'))
          const text =
            low === high ? `${low}` : phrase('log.readings.from_to', { low: low!, high: high! })
          return [s.name, `${text} ${s.unit}`]
        }),
      )
    },
  },
  xAxis: props.chart.series.map((_, i) => ({
    ...look.value.axis,
    gridIndex: i,
    type: 'time',
    min: ends.value[0],
    max: ends.value[1],
    axisLabel: {
      ...look.value.text,
      show: i === props.chart.series.length - 1,
      hideOverlap: true,
      showMaxLabel: false,
      formatter: (at: number) =>
        props.chart.to_day - props.chart.from_day < 2
          ? new Date(at).toISOString().slice(11, 16)
          : clock(at, true),
    },
    splitLine: { show: true, lineStyle: { color: look.value.line } },
  })),
  yAxis: props.chart.series.map((s, i) => ({
    ...look.value.axis,
    gridIndex: i,
    type: 'value',
    name: `${s.name} [${s.unit}]`,
    nameGap: 13,
    nameTextStyle: {
      ...look.value.text,
      color: look.value.ink,
      align: 'left',
      padding: [0, 0, 0, -44],
    },
    scale: s.key !== 'soc',
    ...(s.key === 'soc' ? { min: 0, max: 100 } : {}),
    splitNumber: 2,
  })),
  series: props.chart.series.flatMap((s, i) => {
    const line = {
      type: 'line',
      xAxisIndex: i,
      yAxisIndex: i,
      symbol: 'none',
      connectNulls: false,
      color: look.value.sea,
      lineStyle: { width: 1.4, color: look.value.sea },
    }
    const band = s.points.map((p) => [p[0], p[2] == null ? null : p[2] - p[1]!])
    return [
      { ...line, name: s.key, data: s.points, encode: { x: 0, y: 2 } },
      {
        ...line,
        name: '',
        data: s.points.map((p) => [p[0], p[1]]),
        stack: s.key,
        stackStrategy: 'all',
      },
      // What lies between the lowest and the highest is filled.
      {
        ...line,
        name: '',
        data: band,
        stack: s.key,
        stackStrategy: 'all',
        lineStyle: { opacity: 0 },
        areaStyle: { color: look.value.sea, opacity: 0.3 },
      },
    ]
  }),
  useUTC: true,
}))
</script>

<template>
  <VChart
    :option="option"
    :update-options="{ notMerge: true }"
    autoresize
    :style="{ height: `${height}px` }"
    :aria-label="phrase('log.readings.chart')"
    role="img"
  />
</template>
