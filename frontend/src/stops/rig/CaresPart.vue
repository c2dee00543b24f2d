<script setup lang="ts">
import type { RigFile } from '@/api/rigFile'
import { usePlan } from '@/stores/plan'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

type Care = RigFile['rig']['cares'][number]
const plan = usePlan()
const cares = computed(() => plan.document.rig.cares)
const NAMES: [Care, string][] = [
  ['purse', 'Little money now'],
  ['weight', 'Little weight'],
  ['cold', 'Works in the cold'],
  ['no_upkeep', 'No upkeep'],
  ['big_loads', 'Carries big loads'],
  ['short_keeping', 'I will sell soon'],
  ['long_keeping', 'Lasts for long'],
]

function toggle(key: Care) {
  const value = cares.value.includes(key)
    ? cares.value.filter((c) => c !== key)
    : [...cares.value, key]
  plan.edit('what you care about', { op: 'replace', path: '/rig/cares', value })
}
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">What you care about</h2>
    <p class="mt-1 text-soft">The first that you choose weighs most.</p>
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
      label="Most to spend at once"
      :unit="plan.rig!.units.currency"
      placeholder="no ceiling"
      class="mt-4 max-w-[14rem]"
    />
  </section>
</template>
