<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import FoldedSection from '@/ui/FoldedSection.vue'
import { computed, ref, watch } from 'vue'
import NearestPart from './NearestPart.vue'
import PackageCard from './PackageCard.vue'

/** The ladder of packages, and what more money or more nights buy. */
const props = defineProps<{ found: Schemas['PackagesView'] | null; asking: boolean }>()
const byKey = computed(() => new Map(props.found?.packages.map((p) => [p.key, p]) ?? []))
const ladder = computed(
  () => props.found?.ladder.map((s) => ({ ...s, of: byKey.value.get(s.package)! })) ?? [],
)
const most = computed(() =>
  Math.max(1, ...ladder.value.flatMap((s) => [s.of.outlay, s.of.lifetime])),
)
const money = computed(() => props.found?.money.map((key) => byKey.value.get(key)!) ?? [])
const at = ref(0)
watch(money, (steps) => {
  const advised = ladder.value.find((s) => s.step === 'advised')?.package
  at.value = Math.max(
    0,
    steps.findIndex((p) => p.key === advised),
  )
})
const chosen = computed(() => money.value[Math.min(at.value, money.value.length - 1)])
const level = ref(1)
const serving = computed(() => byKey.value.get(props.found?.levels[level.value]?.package ?? ''))
const COLUMNS: Record<number, string> = {
  1: 'lg:grid-cols-1',
  2: 'sm:grid-cols-2',
  3: 'sm:grid-cols-2 lg:grid-cols-3',
  4: 'sm:grid-cols-2 lg:grid-cols-4',
}
</script>

<template>
  <section class="mt-5" :aria-busy="asking" data-ladder>
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h2 class="text-xl">
        {{
          found?.nearest.length
            ? phrase('compare.nearest_part.title')
            : phrase('compare.ladder_part.title')
        }}
      </h2>
      <p v-if="asking" class="text-sm text-note" role="status" data-looking>
        {{ phrase('compare.ladder_part.looking') }}
      </p>
    </div>
    <template v-if="ladder.length">
      <ol
        class="sheet mt-2 grid divide-y divide-line overflow-hidden sm:divide-x sm:divide-y-0"
        :class="[COLUMNS[ladder.length], asking ? 'opacity-60' : '']"
      >
        <li v-for="s in ladder" :key="s.step" :data-step="s.step" class="min-w-0">
          <PackageCard
            :package="s.of"
            :name="s.name"
            :advised="s.step === 'advised'"
            :most="most"
            :kept="found!.kept"
          />
        </li>
      </ol>
      <div class="mt-4">
        <FoldedSection
          v-if="money.length > 1"
          name="money-front"
          :title="phrase('compare.ladder_part.money')"
        >
          <p class="max-w-3xl text-soft">{{ phrase('compare.ladder_part.money_says') }}</p>
          <div class="mt-3 grid gap-4 sm:grid-cols-2">
            <label class="block self-center">
              <span class="text-sm text-soft">{{
                phrase('compare.ladder_part.money_slider')
              }}</span>
              <input
                v-model.number="at"
                type="range"
                min="0"
                :max="money.length - 1"
                step="1"
                class="w-full accent-sea"
                :aria-valuetext="chosen?.figures.outlay!.text"
              />
              <span class="figure text-xl">{{ chosen?.figures.outlay!.text }}</span>
            </label>
            <div v-if="chosen" class="sheet">
              <PackageCard :package="chosen" :most="most" :kept="found!.kept" />
            </div>
          </div>
        </FoldedSection>
        <FoldedSection
          v-if="found!.levels.some((l) => l.package)"
          name="nights-front"
          :title="phrase('compare.ladder_part.nights')"
        >
          <div class="mt-1 grid gap-4 sm:grid-cols-2">
            <div class="flex flex-wrap content-start gap-2">
              <button
                v-for="(l, i) in found!.levels"
                :key="l.share"
                type="button"
                class="btn"
                :class="i === level ? 'btn-main' : ''"
                :aria-pressed="i === level"
                @click="level = i"
              >
                {{ phrase('compare.ladder_part.level', { share: l.share }) }}
              </button>
            </div>
            <div v-if="serving" class="sheet">
              <PackageCard :package="serving" :most="most" :kept="found!.kept" />
            </div>
            <p v-else class="text-soft">{{ phrase('compare.ladder_part.level_none') }}</p>
          </div>
        </FoldedSection>
      </div>
    </template>
    <NearestPart v-else-if="found?.nearest.length" :nearest="found.nearest" />
    <p v-else-if="found && !asking" class="mt-1 max-w-3xl text-soft">
      {{ phrase('compare.ladder_part.none') }}
    </p>
  </section>
</template>
