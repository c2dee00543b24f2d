<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const rig = computed(() => plan.document.rig)
const moves = computed(() => rig.value.kind !== 'cabin')
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

function toggle(month: number) {
  const months = rig.value.months.includes(month)
    ? rig.value.months.filter((m) => m !== month)
    : [...rig.value.months, month].sort((a, b) => a - b)
  plan.edit('months of use', { op: 'replace', path: '/rig/months', value: months })
}
</script>

<template>
  <section class="sheet grid grid-cols-2 gap-4 p-5">
    <h2 class="col-span-2 text-xl">Use</h2>
    <PlanField
      path="/rig/off_grid_nights"
      label="Off-grid nights a year"
      unit="nights"
      hint="Nights without hook-up, when the bank carries the rig."
    />
    <PlanField
      path="/rig/nights_in_a_row"
      label="Of them in a row, at most"
      unit="nights"
      placeholder="not known"
    />
    <PlanField path="/rig/hook_up_nights" label="Nights on hook-up" unit="nights" />
    <PlanField
      v-if="moves"
      path="/rig/drive_hours"
      :label="
        rig.kind === 'boat' ? 'Hours motored a travelling day' : 'Hours driven a travelling day'
      "
      unit="h"
    />
    <PlanField
      v-if="moves"
      path="/rig/drive_every"
      label="It drives every"
      unit="days"
      placeholder="when it moves on"
    />
    <PlanField
      path="/rig/years_kept"
      label="Years you will keep the rig"
      unit="years"
      hint="The money is counted over these years."
    />
    <fieldset class="col-span-2">
      <legend class="eyebrow mb-1">Months of use</legend>
      <div class="grid grid-cols-6 gap-1 sm:grid-cols-12">
        <button
          v-for="(m, i) in MONTHS"
          :key="m"
          type="button"
          class="btn min-h-8 px-0 text-sm"
          :class="rig.months.includes(i + 1) ? 'btn-main' : ''"
          :aria-pressed="rig.months.includes(i + 1)"
          @click="toggle(i + 1)"
        >
          {{ m }}
        </button>
      </div>
    </fieldset>
    <div class="col-span-2 grid grid-cols-3 gap-3 border-t border-line pt-4">
      <p class="col-span-3 font-semibold">What else ends a stay?</p>
      <PlanField path="/rig/water_nights" label="Water" unit="nights" placeholder="never" />
      <PlanField path="/rig/waste_nights" label="Waste tank" unit="nights" placeholder="never" />
      <PlanField path="/rig/gas_nights" label="Gas" unit="nights" placeholder="never" />
      <p class="col-span-3 text-sm text-soft">A bank that outlasts them is partly unused.</p>
    </div>
  </section>
</template>
