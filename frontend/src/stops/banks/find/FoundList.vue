<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { Plus } from '@lucide/vue'
import { useBanks } from '@/stores/useBanks'

defineProps<{ found: Schemas['FoundView'][] }>()
const plan = usePlan()
const { full, addFound } = useBanks()
</script>

<template>
  <ol class="mt-2 divide-y divide-line">
    <li
      v-for="f in found"
      :key="`${f.model}-${f.parallel}`"
      class="grid grid-cols-[auto_1fr_auto] items-center gap-x-3 py-2.5"
      :data-found="f.model"
    >
      <ChemistryMark :battery-class="f.battery_class" />
      <p class="min-w-0 leading-snug">
        <span class="font-semibold">{{ f.title }}</span>
        <span class="text-soft"> · {{ f.layout }}</span>
        <span class="block text-sm">
          {{
            phrase('banks.found_list.up_front_over_years', {
              purchase: f.purchase,
              kg: f.kg,
              lifetime: f.lifetime,
              years_kept: plan.document.rig.years_kept,
            })
          }}
          <span class="text-soft">{{
            phrase('banks.found_list.usable', { usable: f.usable, nights: f.nights })
          }}</span>
        </span>
      </p>
      <button
        type="button"
        class="btn"
        :disabled="full"
        :aria-label="phrase('banks.found_list.add', { title: f.title, layout: f.layout })"
        @click="addFound(f)"
      >
        <Plus :size="15" aria-hidden="true" /> {{ phrase('banks.found_list.add_short') }}
      </button>
    </li>
  </ol>
</template>
