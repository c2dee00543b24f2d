<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import type { Schemas } from '@/api/client'
import '@/charts/bars'
import ChartFrame from '@/charts/ChartFrame.vue'
import { markOf } from '@/charts/sameClass'
import { tip } from '@/charts/tip'
import { useLines } from '@/charts/useLines'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed } from 'vue'

const props = defineProps<{ banks: Schemas['BankYearView'][] }>()
const { look, chemistry, picture } = useLines()
const BINS = Array.from({ length: 10 }, (_, i) => `${i * 10}–${i * 10 + 10}`)
/** One scale for all banks, in steps of 1, 2 or 5 times a power of ten. */
const scale = computed(() => {
  const most = Math.max(1, ...props.banks.flatMap((l) => l.depths))
  const power = 10 ** Math.floor(Math.log10(most / 3))
  const interval = power * [1, 2, 5, 10].find((m) => 3 * m * power >= most)!
  return { min: 0, max: Math.ceil(most / interval) * interval, interval }
})

const option = (bank: Schemas['BankYearView']) =>
  picture({
    grid: { left: 34, right: 6, top: 8, bottom: 38 },
    tell: (items) =>
      tip(`${BINS[items[0]!.dataIndex]} %`, [
        phrase('trial.depth_chart.cycles_a_year'),
        `${items[0]!.value}`,
      ]),
    x: {
      type: 'category',
      min: undefined,
      data: BINS,
      name: phrase('trial.depth_chart.depth_rated_capacity'),
      nameGap: 22,
      axisLabel: { ...look.value.text, formatter: (v: string) => v.split('–')[0] },
    },
    y: scale.value,
    series: [
      {
        name: phrase('trial.depth_chart.cycles_a_year'),
        type: 'bar',
        barCategoryGap: '20%',
        color: chemistry(bank.battery_class).color,
        data: bank.depths.map((d) => +d.toFixed(1)),
      },
    ],
  })
</script>

<template>
  <section>
    <h2 class="text-xl">{{ phrase('trial.depth_chart.how_deep_discharged') }}</h2>
    <p class="max-w-3xl text-pretty text-soft">
      {{ phrase('trial.depth_chart.cycles_year_depth_discharge') }}
    </p>
    <div class="mt-3 grid gap-6 sm:grid-cols-2 lg:grid-cols-3">
      <ChartFrame
        v-for="l in banks"
        :key="l.id"
        :title="l.title"
        :option="option(l)"
        :height="170"
        :head="[phrase('trial.depth_chart.depth'), phrase('trial.depth_chart.cycles_year')]"
        :rows="l.depths.map((d, i) => [BINS[i]!, d.toFixed(1)])"
      >
        <ChemistryMark
          :battery-class="l.battery_class"
          :mark="markOf(banks, l.id)"
          class="scale-90"
        />
      </ChartFrame>
    </div>
  </section>
</template>
