<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import type { RigFile } from '@/api/rigFile'
import { usePlan } from '@/stores/plan'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

type Care = RigFile['rig']['cares'][number]
const plan = usePlan()
const cares = computed(() => plan.document.rig.cares)
const NAMES: [Care, string][] = [
  ['purse', phrase('rig.cares_part.low_up_front_cost')],
  ['weight', phrase('rig.cares_part.low_weight')],
  ['cold', phrase('rig.cares_part.works_cold')],
  ['no_upkeep', phrase('rig.cares_part.maintenance')],
  ['big_loads', phrase('rig.cares_part.large_loads')],
  ['short_keeping', phrase('rig.cares_part.i_sell_soon')],
  ['long_keeping', phrase('rig.cares_part.i_keep_long')],
]

function toggle(key: Care) {
  const value = cares.value.includes(key)
    ? cares.value.filter((c) => c !== key)
    : [...cares.value, key]
  plan.edit(phrase('rig.cares_part.care_about_2'), { op: 'replace', path: '/rig/cares', value })
}
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">{{ phrase('rig.cares_part.care_about') }}</h2>
    <p class="mt-1 text-soft">{{ phrase('rig.cares_part.first_choice_counts') }}</p>
    <div class="mt-3 flex flex-wrap gap-2">
      <button
        v-for="[key, name] in NAMES"
        :key="key"
        type="button"
        class="btn"
        :class="cares.includes(key) ? 'btn-main' : ''"
        :aria-pressed="cares.includes(key)"
        :data-care="key"
        @click="toggle(key)"
      >
        <span v-if="cares.includes(key)" class="tabular-nums">{{ cares.indexOf(key) + 1 }}.</span>
        {{ name }}
      </button>
    </div>
    <PlanField
      path="/rig/budget"
      :label="phrase('rig.cares_part.spending_limit')"
      :unit="plan.rig!.units.currency"
      :placeholder="phrase('rig.cares_part.limit')"
      class="mt-4 max-w-[14rem]"
    />
  </section>
</template>
