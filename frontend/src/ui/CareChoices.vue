<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import type { RigFile } from '@/api/rigFile'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

/** What the owner cares about, the strongest first. */
type Care = RigFile['rig']['cares'][number]
const plan = usePlan()
const cares = computed(() => plan.document.rig.cares)
const NAMES: [Care, string][] = [
  ['purse', phrase('shared.care_choices.low_up_front_cost')],
  ['weight', phrase('shared.care_choices.low_weight')],
  ['cold', phrase('shared.care_choices.works_cold')],
  ['no_upkeep', phrase('shared.care_choices.maintenance')],
  ['big_loads', phrase('shared.care_choices.large_loads')],
  ['short_keeping', phrase('shared.care_choices.i_sell_soon')],
  ['long_keeping', phrase('shared.care_choices.i_keep_long')],
]

function toggle(key: Care) {
  const value = cares.value.includes(key)
    ? cares.value.filter((c) => c !== key)
    : [...cares.value, key]
  plan.edit(phrase('shared.care_choices.care_about'), { op: 'replace', path: '/rig/cares', value })
}
</script>

<template>
  <div class="flex flex-wrap gap-2">
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
</template>
