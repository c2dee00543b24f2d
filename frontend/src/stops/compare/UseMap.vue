<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import type { Schemas } from '@/api/client'
import DataTable from '@/charts/DataTable.vue'
import { markOf } from '@/charts/sameClass'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed, ref } from 'vue'

const props = defineProps<{ map: Schemas['UseMapView'] }>()
const plan = usePlan()
const columns = computed(() =>
  props.map.ids.map((id) => plan.rig!.compare.compared_banks.find((c) => c.id === id)!),
)
const used = computed(() => {
  const seen = new Set(props.map.cheapest.flat())
  return columns.value.map((c, i) => ({ ...c, at: i })).filter((c) => seen.has(c.at))
})
const W = 480
const H = 300
const LEFT = 48
const BOTTOM = 46
const nights = computed(() => props.map.nights)
const years = computed(() => props.map.years)
const RIGHT = 14
const w = computed(() => (W - LEFT - RIGHT) / nights.value.length)
const h = computed(() => (H - BOTTOM) / years.value.length)
const x = (n: number) => {
  const [a, b] = [nights.value[0]!, nights.value.at(-1)!]
  return LEFT + w.value / 2 + ((n - a) / (b - a)) * (W - LEFT - RIGHT - w.value)
}
const y = (t: number) => {
  const [a, b] = [years.value[0]!, years.value.at(-1)!]
  return H - BOTTOM - h.value / 2 - ((t - a) / (b - a)) * (H - BOTTOM - h.value)
}
const cells = computed(() =>
  props.map.cheapest.flatMap((row, j) =>
    row.map((who, i) => ({
      key: `${i}-${j}`,
      who,
      i,
      j,
      near: props.map.gap[j]![i]! < 0.05,
    })),
  ),
)
const ticks = (list: number[], count: number) => {
  const top = list.at(-1)!
  const step = [1, 2, 5, 10, 20, 50, 100].find((s) => top / s <= count) ?? 200
  return Array.from({ length: Math.floor(top / step) }, (_, i) => (i + 1) * step)
}
const over = ref<{ i: number; j: number } | null>(null)
const told = computed(() => {
  const at = over.value
  if (!at) return ''
  const c = columns.value[props.map.cheapest[at.j]![at.i]!]!
  const gap = props.map.gap[at.j]![at.i]! * 100
  return phrase('compare.use_map.nights_year_years_next', {
    nights: Math.round(nights.value[at.i]!),
    years: Math.round(years.value[at.j]!),
    title: c.title,
    gap: gap < 1 ? phrase('compare.use_map.less_1') : Math.round(gap),
  })
})
const summary = computed(() =>
  used.value.map((c) => {
    const count = props.map.cheapest.flat().filter((w) => w === c.at).length
    const share = (count / cells.value.length) * 100
    return [c.title, `${Math.round(share)} %`]
  }),
)
const hatch = (c: { battery_class: string }) => c.battery_class !== 'lfp'
</script>

<template>
  <figure data-map>
    <figcaption>
      <h2 class="text-xl">{{ phrase('compare.use_map.cheapest_bank_use') }}</h2>
      <p class="text-sm text-pretty text-soft">
        {{ phrase('compare.use_map.pin_pale_cells_next') }}
        <template v-if="map.supposed">
          {{ ' ' }}{{ phrase('compare.use_map.map_treats_banks_suitable') }}
        </template>
      </p>
    </figcaption>
    <ul class="my-2 flex flex-wrap gap-x-5 gap-y-1 text-sm">
      <li v-for="c in used" :key="c.id" class="flex items-center gap-1.5">
        <ChemistryMark
          :battery-class="c.battery_class"
          :mark="markOf(plan.rig!.compare.compared_banks, c.id)"
          class="scale-90"
        />
        {{ c.title }}
      </li>
    </ul>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="w-full"
      role="img"
      :aria-label="phrase('compare.use_map.map_cheapest_bank_nights')"
      @pointerleave="over = null"
    >
      <defs>
        <pattern
          v-for="c in used"
          :id="`use-${c.at}`"
          :key="c.id"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          :patternTransform="`rotate(${45 + c.at * 40})`"
        >
          <rect width="6" height="6" :fill="`var(--chem-${c.battery_class})`" />
          <rect v-if="hatch(c)" width="1.4" height="6" fill="var(--sheet)" opacity="0.55" />
        </pattern>
      </defs>
      <rect
        v-for="c in cells"
        :key="c.key"
        :x="LEFT + c.i * w"
        :y="H - BOTTOM - (c.j + 1) * h"
        :width="w"
        :height="h"
        shape-rendering="crispEdges"
        :fill="`url(#use-${c.who})`"
        :opacity="c.near ? 0.5 : 1"
        @pointerenter="over = { i: c.i, j: c.j }"
      />
      <g font-size="14" fill="var(--soft)">
        <text
          v-for="n in ticks(nights, 7)"
          :key="n"
          :x="x(n)"
          :y="H - BOTTOM + 15"
          text-anchor="middle"
        >
          {{ n }}
        </text>
        <text v-for="t in ticks(years, 7)" :key="t" :x="LEFT - 6" :y="y(t) + 4" text-anchor="end">
          {{ t }}
        </text>
        <text :x="(LEFT + W) / 2" :y="H - 6" text-anchor="middle">
          {{ phrase('compare.use_map.nights_off_grid_year') }}
        </text>
        <text :transform="`translate(11 ${(H - BOTTOM) / 2}) rotate(-90)`" text-anchor="middle">
          {{ phrase('compare.use_map.years_keep_rig') }}
        </text>
      </g>
      <g
        v-if="map.here[0]! <= nights.at(-1)! && map.here[1]! <= years.at(-1)!"
        :transform="`translate(${x(Math.max(nights[0]!, map.here[0]!))} ${y(map.here[1]!)})`"
      >
        <circle r="8.5" fill="var(--sheet)" stroke="var(--ink)" stroke-width="2.5" />
        <circle r="3" fill="var(--ink)" />
      </g>
    </svg>
    <p class="min-h-5 text-sm text-soft">{{ told }}</p>
    <DataTable
      :head="[phrase('compare.use_map.cheapest'), phrase('compare.use_map.share_map')]"
      :rows="summary"
    />
  </figure>
</template>
