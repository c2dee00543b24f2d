<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { tip } from '@/charts/tip'
import { useLook } from '@/charts/useLook'
import { grouped } from '@/ui/numbers'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed } from 'vue'

const props = defineProps<{ found: Schemas['FoundView'][]; money: string; kg: string }>()
const { look, chemistry } = useLook()
const reference = useReference()
const classes = computed(() => [...new Set(props.found.map((f) => f.battery_class))])
const heaviest = computed(() => Math.max(...props.found.map((f) => f.kg_at), 1))
const size = (kg: number) => 9 + 19 * Math.sqrt(kg / heaviest.value)

const option = computed(() => ({
  animation: false,
  grid: { left: 66, right: 20, top: 12, bottom: 44 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'item',
    formatter: (item: { data: { name: string; says: string[] } }) =>
      tip(['', item.data.name], ...item.data.says),
  },
  xAxis: {
    ...look.value.axis,
    type: 'value',
    scale: true,
    name: phrase('banks.found_picture.up_front_cost_money', { money: props.money }),
    nameLocation: 'middle',
    nameGap: 28,
    axisLabel: { ...look.value.text, formatter: (v: number) => grouped(v), hideOverlap: true },
  },
  yAxis: {
    ...look.value.axis,
    type: 'value',
    scale: true,
    axisLabel: { ...look.value.text, formatter: (v: number) => grouped(v) },
  },
  series: classes.value.map((key) => ({
    type: 'scatter',
    data: props.found
      .filter((f) => f.battery_class === key)
      .map((f) => ({
        value: [f.purchase_at, f.lifetime_at],
        name: `${f.title}, ${f.layout}`,
        says: [
          phrase('banks.found_picture.up_front_over_years', {
            purchase: f.purchase,
            lifetime: f.lifetime,
          }),
          phrase('banks.found_picture.usable', { kg: f.kg, usable: f.usable }),
        ],
        symbol: chemistry(key).symbol,
        symbolSize: size(f.kg_at),
        itemStyle: f.front
          ? { color: chemistry(key).color, opacity: 0.92 }
          : { color: 'transparent', borderColor: chemistry(key).color, borderWidth: 1.4 },
      })),
  })),
}))
const rows = computed(() =>
  props.found.map((f) => [
    `${f.title}, ${f.layout}`,
    f.purchase,
    f.kg,
    f.lifetime,
    f.front ? phrase('banks.found_picture.beaten') : '',
  ]),
)
</script>

<template>
  <ChartFrame
    :title="phrase('banks.found_picture.lifetime_cost_up_front', { money })"
    :option="option"
    :height="330"
    :head="[
      phrase('banks.found_picture.bank'),
      phrase('banks.found_picture.up_front_cost'),
      phrase('banks.found_picture.weight'),
      phrase('banks.found_picture.lifetime_cost'),
      '',
    ]"
    :rows="rows"
  >
    <ul class="flex flex-wrap gap-x-4 gap-y-1 text-sm">
      <li v-for="c in classes" :key="c" class="flex items-center gap-1.5">
        <ChemistryMark :battery-class="c" class="scale-90" />
        {{ reference.classes.get(c)?.short }}
      </li>
    </ul>
    <p class="mb-1 text-sm text-soft">
      {{ phrase('banks.found_picture.filled_beaten_other_larger') }}
    </p>
  </ChartFrame>
</template>
