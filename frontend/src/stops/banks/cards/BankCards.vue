<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { wide } from '@/ui/wide'
import { computed, ref } from 'vue'
import BankCard from './BankCard.vue'
import { useBanks } from '@/stores/useBanks'

const plan = usePlan()
const reference = useReference()
const { candidates, add, full } = useBanks()
/** On a phone a few at first: each of them is half a screen. */
const FEW = 4
const all = ref(wide())
const shown = computed(() => (all.value ? candidates.value : candidates.value.slice(0, FEW)))
/** What the bars of the cards end at, so that all have one scale. */
const most = computed(() => {
  const of = (key: string) =>
    Math.max(0, ...candidates.value.map((c) => c.figures[key]?.value ?? 0))
  const need = plan.rig!.need.energy.value ?? 0
  return {
    usable_wh: Math.max(of('usable_wh'), need * 1.1),
    kg: of('kg'),
    purchase: of('purchase'),
  }
})
</script>

<template>
  <p class="mb-3 max-w-6xl text-pretty text-soft">
    {{ phrase('banks.bank_cards.whole_batteries_series_parallel') }}
  </p>
  <section
    class="grid items-start gap-3 md:grid-cols-2 lg:grid-cols-3 xl:grid-cols-4"
    :aria-label="phrase('banks.bank_cards.banks_compare')"
  >
    <BankCard v-for="c in shown" :key="c.id" :candidate="c" :most="most" />
  </section>
  <button
    v-if="shown.length < candidates.length"
    type="button"
    class="btn mt-3"
    data-all-banks
    @click="all = true"
  >
    {{ phrase('banks.bank_cards.show_all', { all: candidates.length }) }}
  </button>
  <div class="mt-4 flex flex-wrap items-center gap-2">
    <span class="text-soft">{{ phrase('banks.bank_cards.add_bank_lowest_lifetime') }}</span>
    <button
      v-for="c in reference.data?.classes"
      :key="c.key"
      type="button"
      class="btn"
      :disabled="full"
      :data-new="c.key === 'agm' ? '' : undefined"
      @click="add(c.key, null, c.name)"
    >
      {{ c.short }}
    </button>
    <span v-if="full" class="text-soft">{{
      phrase('banks.bank_cards.compare_up_eight_banks')
    }}</span>
  </div>
</template>
