<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'

/** How small a bank may be by the year, of each class, beside what the house rule asks for. */
const plan = usePlan()
const reference = useReference()
const { answer, asking } = useAsked<Schemas['SizesView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/compare/sizes', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const most = computed(() => {
  const all = answer.value!.classes.flatMap((c) => c.sizes.map((s) => s.usable.value ?? 0))
  return 1.06 * Math.max(answer.value!.need?.value ?? 0, ...all)
})
const at = (value: number | null | undefined) => `${(100 * (value ?? 0)) / most.value}%`
const nameOf = (key: string) => reference.classes.get(key)?.short ?? ''
</script>

<template>
  <section data-sizes :aria-busy="asking">
    <h2 class="text-xl">{{ phrase('compare.sizes.title') }}</h2>
    <p v-if="!answer" class="text-soft">{{ phrase('compare.sizes.working') }}</p>
    <p v-else-if="!answer.says.length" class="text-soft">{{ phrase('compare.sizes.none') }}</p>
    <template v-else>
      <p class="mt-1 max-w-3xl text-pretty" data-sizes-says>
        <SentenceText :tokens="answer.says" />
      </p>
      <p v-if="answer.classes.length" class="mt-1 max-w-3xl text-sm text-pretty text-soft">
        {{ phrase('compare.sizes.lead') }}
      </p>
      <div
        v-if="answer.classes.length"
        class="sheet mt-3 px-5 py-4"
        role="group"
        :aria-label="phrase('compare.sizes.picture')"
      >
        <div class="grid gap-x-4 sm:grid-cols-[11rem_1fr]">
          <span class="max-sm:hidden" />
          <p class="relative h-6 text-sm whitespace-nowrap">
            <span
              class="absolute"
              :style="
                (answer.need?.value ?? 0) > most / 2
                  ? { right: `calc(100% - ${at(answer.need?.value)})` }
                  : { left: at(answer.need?.value) }
              "
              >{{ phrase('compare.sizes.rule') }}
              <FigureLink v-if="answer.need" :figure="answer.need" class="font-semibold"
            /></span>
          </p>
          <template v-for="c in answer.classes" :key="c.battery_class">
            <h3
              class="flex items-center gap-2 border-t border-line pt-2 text-base sm:py-3"
              :data-sizes-of="c.battery_class"
            >
              <ChemistryMark :battery-class="c.battery_class" /> {{ nameOf(c.battery_class) }}
            </h3>
            <div class="relative py-3 sm:border-t sm:border-line">
              <span
                class="absolute inset-y-0 w-px bg-ink max-sm:hidden"
                :style="{ left: at(answer.need?.value) }"
                aria-hidden="true"
              />
              <span class="relative block h-3 rounded-full bg-line" aria-hidden="true">
                <span
                  class="absolute inset-y-0 left-0 rounded-full opacity-60"
                  :style="{
                    width: at(c.sizes.at(-1)?.usable.value),
                    background: `var(--chem-${c.battery_class})`,
                  }"
                />
                <span
                  v-for="s in c.sizes"
                  :key="s.title"
                  class="absolute -inset-y-1 w-1.5 rounded-sm outline-1 outline-sheet"
                  :style="{
                    left: `calc(${at(s.usable.value)} - 3px)`,
                    background: `var(--chem-${c.battery_class})`,
                  }"
                />
                <span
                  class="absolute -inset-y-2 w-px bg-ink"
                  :style="{ left: at(answer.need?.value) }"
                />
              </span>
              <ul class="relative mt-3 text-sm">
                <li v-for="s in c.sizes" :key="s.title" class="w-fit bg-sheet pr-2">
                  <span class="font-semibold">{{
                    phrase('compare.sizes.of_nights', { shares: s.shares })
                  }}</span>
                  {{ s.title }},
                  <FigureLink :figure="s.usable" />
                </li>
                <li v-if="c.missed" class="w-fit bg-sheet pr-2 text-soft">{{ c.missed }}</li>
                <li v-if="c.why.length" class="w-fit bg-sheet pr-2 text-soft">
                  <SentenceText :tokens="c.why" />
                </li>
              </ul>
            </div>
          </template>
        </div>
      </div>
    </template>
  </section>
</template>
