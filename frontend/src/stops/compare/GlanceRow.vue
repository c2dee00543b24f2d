<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

/** Every candidate at one glance: four bars, and how often it is cheapest. */
const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const NAMES: Record<string, string> = {
  usable_wh: phrase('compare.glance_row.usable'),
  kg: phrase('compare.glance_row.weight'),
  design_cycles: phrase('compare.glance_row.rated_cycles'),
  per_cycle: phrase('compare.glance_row.per_cycle_use'),
}
const rows = computed(() => compare.value.rows.filter((r) => r.headline))
const most = computed(() =>
  rows.value.map((r) => Math.max(1e-9, ...r.figures.map((f) => f.value ?? 0))),
)
/** The one that was found and is no candidate comes first, as in the table. */
const cards = computed(() =>
  compare.value.compared_banks
    .map((c, i) => ({
      ...c,
      future: compare.value.verdict.candidates.find((l) => l.id === c.id)!,
      found: c.index < 0,
      bars: rows.value.map((r, j) => ({
        key: r.key,
        name: NAMES[r.key] ?? r.name,
        figure: r.figures[i]!,
        best: r.best.includes(i),
        width: `${Math.max(1.5, ((r.figures[i]!.value ?? 0) / most.value[j]!) * 100)}%`,
      })),
    }))
    .sort((a, b) => Number(b.found) - Number(a.found)),
)
</script>

<template>
  <section class="sheet overflow-hidden" :aria-label="phrase('compare.glance_row.banks_glance')">
    <div
      class="hidden grid-cols-[minmax(0,1fr)_repeat(4,8.5rem)_6.5rem] gap-x-5 px-4 pt-2 text-sm text-soft lg:grid"
      aria-hidden="true"
    >
      <span />
      <span v-for="r in rows" :key="r.key">{{ NAMES[r.key] ?? r.name }}</span>
      <span>{{ phrase('compare.glance_row.cheapest_in') }}</span>
    </div>
    <ul class="divide-y divide-line">
      <li
        v-for="c in cards"
        :key="c.id"
        class="grid grid-cols-2 items-center gap-x-5 gap-y-1 px-4 py-2 lg:grid-cols-[minmax(0,1fr)_repeat(4,8.5rem)_6.5rem] lg:py-1"
        :class="c.id === compare.verdict.winner ? 'bg-wash' : ''"
        :data-glance="c.id"
      >
        <h3
          class="col-span-2 flex min-w-0 items-center gap-2 leading-tight lg:col-span-1"
          :title="`${c.title}, ${c.layout}`"
        >
          <ChemistryMark :battery-class="c.battery_class" class="scale-90" />
          <span class="min-w-0 lg:truncate">
            {{ c.title }}
            <span class="font-sans text-sm font-normal text-soft">
              {{ c.layout
              }}<b v-if="c.found" class="font-semibold text-sea">
                {{ ' ' }}{{ phrase('compare.glance_row.found') }}</b
              ><b v-if="c.own" class="font-semibold text-sea">
                {{ ' ' }}{{ phrase('compare.glance_row.own') }}</b
              ><b v-if="c.out" class="font-semibold text-blocking">
                {{ ' ' }}{{ phrase('compare.glance_row.unsuitable') }}</b
              >
            </span>
          </span>
        </h3>
        <div v-for="b in c.bars" :key="b.key" class="min-w-0">
          <span class="mr-1.5 text-sm text-soft lg:sr-only">{{ b.name }}</span>
          <FigureLink
            :figure="b.figure"
            :name="b.name"
            :class="b.best ? 'font-bold' : ''"
            class="whitespace-nowrap"
          />
          <span class="mt-0.5 block h-1.5 overflow-hidden rounded-full bg-line" aria-hidden="true">
            <span
              class="block h-full rounded-full"
              :style="{
                width: b.width,
                background: `var(--chem-${c.battery_class})`,
                opacity: c.out ? 0.45 : 1,
              }"
            />
          </span>
        </div>
        <p class="col-span-2 text-sm lg:col-span-1">
          <template v-if="c.future.share">
            <span class="text-soft lg:sr-only">{{ phrase('compare.glance_row.cheapest_in') }}</span>
            {{ ' ' }}<FigureLink :figure="c.future.share" class="font-semibold" data-share />
          </template>
          <span v-else class="text-soft">{{ phrase('compare.glance_row.considered') }}</span>
        </p>
      </li>
    </ul>
  </section>
</template>
