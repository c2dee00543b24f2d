<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { Plus } from '@lucide/vue'
import { useBanks } from '@/stores/useBanks'

defineProps<{ found: Schemas['FoundView'][] }>()
const plan = usePlan()
const { full, putUp } = useBanks()
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
          {{ f.purchase }} to buy · {{ f.kg }} · {{ f.lifetime }} over
          {{ plan.document.rig.years_kept }} years
          <span class="text-soft">· {{ f.usable }} usable, {{ f.nights }}</span>
        </span>
      </p>
      <button
        type="button"
        class="btn"
        :disabled="full"
        :aria-label="`Put up ${f.title}, ${f.layout}`"
        @click="putUp(f)"
      >
        <Plus :size="15" aria-hidden="true" /> Put up
      </button>
    </li>
  </ol>
</template>
