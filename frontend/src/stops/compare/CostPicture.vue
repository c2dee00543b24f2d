<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

/** What the banks cost over the years, the cheapest first: the money of the verdict at a glance. */
const MOST = 5
const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const bars = computed(() => {
  const verdict = compare.value.verdict
  const out = new Set(verdict.outs.map((o) => o.id))
  return compare.value.compared_banks
    .flatMap((c) => {
      const money = verdict.candidates.find((l) => l.id === c.id)
      return money && !out.has(c.id) ? [{ ...c, ...money, id: c.id }] : []
    })
    .sort((a, b) => (a.p50.value ?? 0) - (b.p50.value ?? 0))
})
const least = computed(() => bars.value[0]?.p50.value ?? 0)
/** One that costs three times as much would press the others into the corner. */
const shown = computed(() =>
  bars.value.filter((b, i) => i < 2 || (b.p50.value ?? 0) <= 3 * least.value).slice(0, MOST),
)
const top = computed(() => Math.max(1e-9, ...shown.value.map((b) => b.p90.value ?? 0)) * 1.02)
const at = (v: number | null) => `${Math.min(100, Math.max(0, ((v ?? 0) / top.value) * 100))}%`
</script>

<template>
  <figure v-if="shown.length > 1" data-cost-picture>
    <figcaption>
      <h2 class="text-xl">{{ phrase('compare.cost_picture.title') }}</h2>
    </figcaption>
    <ul class="mt-2 space-y-2.5">
      <li
        v-for="b in shown"
        :key="b.id"
        class="grid grid-cols-[1fr_auto] items-center gap-x-3 sm:grid-cols-[16rem_1fr_auto_9rem]"
      >
        <span class="flex min-w-0 items-center gap-2 leading-tight max-sm:col-span-2">
          <ChemistryMark :battery-class="b.battery_class" class="scale-75" />{{ b.title }}
        </span>
        <span class="relative block h-5" aria-hidden="true">
          <span
            class="absolute inset-y-1 rounded"
            :style="{
              left: at(b.p10.value),
              right: `calc(100% - ${at(b.p90.value)})`,
              background: `var(--chem-${b.battery_class})`,
              opacity: b.id === compare.verdict.winner ? 0.75 : 0.4,
            }"
          />
          <span class="absolute inset-y-0 w-[3px] bg-ink" :style="{ left: at(b.p50.value) }" />
        </span>
        <FigureLink
          :figure="b.p50"
          :name="b.title"
          :class="b.id === compare.verdict.winner ? 'font-semibold' : ''"
        />
        <span class="text-sm text-soft max-sm:col-span-2">
          <template v-if="b.share"
            >{{ phrase('compare.cost_picture.cheapest_in') }}{{ ' '
            }}<FigureLink :figure="b.share" data-share
          /></template>
        </span>
      </li>
    </ul>
    <p class="mt-2 text-sm text-soft">
      {{ phrase('compare.cost_picture.says') }}
      <template v-if="bars.length > shown.length">{{
        phrase('compare.cost_picture.more', { count: bars.length - shown.length })
      }}</template>
    </p>
  </figure>
</template>
