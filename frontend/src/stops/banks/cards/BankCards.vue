<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { useReference } from '@/stores/reference'
import BankCard from './BankCard.vue'
import { useBanks } from '@/stores/useBanks'

const reference = useReference()
const { candidates, add, full } = useBanks()
</script>

<template>
  <p class="mb-4 max-w-3xl text-pretty text-soft">
    {{ phrase('banks.bank_cards.whole_batteries_series_parallel') }}
  </p>
  <section
    class="grid items-start gap-4 md:grid-cols-2 xl:grid-cols-3"
    :aria-label="phrase('banks.bank_cards.banks_compare')"
  >
    <BankCard v-for="c in candidates" :key="c.id" :candidate="c" />
  </section>
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
