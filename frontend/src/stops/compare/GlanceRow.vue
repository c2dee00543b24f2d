<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

/** Every candidate at one glance: four bars, the range of its cost, and how often it is cheapest. */
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
const fit = computed(() => {
  const candidates = compare.value.verdict.candidates
  const inside = candidates.filter((l) => l.share)
  return inside.length > 1 ? inside : candidates
})
const top = computed(() => Math.max(1e-9, ...fit.value.map((l) => l.p90.value ?? 0)) * 1.04)
const at = (v: number | null) => `${Math.min(100, Math.max(0, ((v ?? 0) / top.value) * 100))}%`
/** The one that was found and is not put up comes first, as in the table. */
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
  <section :aria-label="phrase('compare.glance_row.banks_glance')">
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(17.5rem,1fr))] gap-3">
      <li
        v-for="c in cards"
        :key="c.id"
        class="sheet flex flex-col p-4"
        :class="c.id === compare.verdict.winner ? 'outline-2 outline-sea' : ''"
        :data-glance="c.id"
      >
        <h3 class="flex min-h-12 items-start gap-2 leading-tight">
          <ChemistryMark :battery-class="c.battery_class" />
          <span>
            {{ c.title }}
            <span class="block font-sans text-sm font-normal text-soft">
              {{ c.layout
              }}<b v-if="c.found" class="font-semibold text-sea">
                {{ ' ' }}{{ phrase('compare.glance_row.found') }}</b
              ><b v-if="c.stop" class="font-semibold text-stop">
                {{ ' ' }}{{ phrase('compare.glance_row.unsuitable') }}</b
              >
            </span>
          </span>
        </h3>
        <dl class="mt-3 space-y-1.5">
          <div
            v-for="b in c.bars"
            :key="b.key"
            class="grid grid-cols-[4.6rem_1fr_6.2rem] items-center gap-2 text-sm"
          >
            <dt class="text-soft">{{ b.name }}</dt>
            <dd class="h-2 overflow-hidden rounded-full bg-line" aria-hidden="true">
              <span
                class="block h-full rounded-full"
                :style="{
                  width: b.width,
                  background: `var(--chem-${c.battery_class})`,
                  opacity: c.stop ? 0.45 : 1,
                }"
              />
            </dd>
            <dd :class="b.best ? 'font-bold' : ''" class="whitespace-nowrap">
              <FigureLink :figure="b.figure" :name="b.name" />
            </dd>
          </div>
        </dl>
        <div class="mt-auto pt-3 text-sm">
          <p class="text-soft">
            {{ phrase('compare.glance_row.lifetime_cost_eight_ten') }}
            <FigureLink :figure="c.future.p10" class="text-ink" />
            {{ phrase('compare.glance_row.to') }}
            <FigureLink :figure="c.future.p90" class="text-ink" />
          </p>
          <div class="relative mt-1.5 h-3" aria-hidden="true">
            <span class="absolute inset-x-0 top-[5px] h-0.5 bg-line" />
            <span
              class="absolute top-[3px] h-1.5 rounded-full"
              :style="{
                left: at(c.future.p10.value),
                right: `calc(100% - ${at(c.future.p90.value)})`,
                background: `var(--chem-${c.battery_class})`,
                opacity: 0.55,
              }"
            />
            <span
              class="absolute top-0 h-3 w-[3px] bg-ink"
              :style="{ left: at(c.future.p50.value) }"
            />
          </div>
          <p v-if="c.future.share" class="mt-1">
            {{ phrase('compare.glance_row.cheapest') }}
            <FigureLink :figure="c.future.share" class="font-semibold" data-share />
            {{ phrase('compare.glance_row.scenarios') }}
          </p>
          <p v-else class="mt-1 text-soft">{{ phrase('compare.glance_row.considered') }}</p>
        </div>
      </li>
    </ul>
  </section>
</template>
