<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'
import { KINDS } from '../harbor/kinds'
import OldBank from './OldBank.vue'

const plan = usePlan()
const rig = computed(() => plan.document.rig)
const units = computed(() => plan.rig!.units)
</script>

<template>
  <h1 class="text-3xl">The rig</h1>
  <p class="mt-1 max-w-3xl text-pretty text-soft">
    What it is, how often it stands away from hook-up, and how long you will keep it. Everything is
    saved as you type.
  </p>
  <div class="mt-6 grid items-start gap-6 lg:grid-cols-[3fr_2fr]">
    <div class="space-y-6">
      <section class="sheet grid gap-4 p-5 sm:grid-cols-2">
        <PlanField path="/rig/name" label="Name" text class="sm:col-span-2" />
        <PlanChoice path="/rig/kind" label="Kind" :value="rig.kind as string" :options="KINDS" />
        <PlanChoice
          path="/rig/system_v"
          label="System voltage"
          :value="rig.system_v as number"
          :options="[12, 24, 48].map((v) => ({ value: v, name: `${v} V` }))"
        />
      </section>
      <section class="sheet grid gap-4 p-5 sm:grid-cols-2">
        <h2 class="text-xl sm:col-span-2">Use</h2>
        <PlanField
          path="/rig/off_grid_nights"
          label="Off-grid nights a year"
          unit="nights"
          hint="Nights without hook-up, when the bank carries the rig."
        />
        <PlanField
          path="/rig/years_kept"
          label="Years you will keep the rig"
          unit="years"
          hint="The money is counted over these years."
        />
        <PlanField
          path="/rig/battery_c"
          label="Battery temperature when used"
          :unit="units.temperature"
          hint="Of the battery, not of the air, in the season that asks most."
        />
        <PlanField
          path="/rig/rest_c"
          label="Battery temperature the rest of the year"
          :unit="units.temperature"
          hint="Heat ages it; above 25 °C (77 °F) life halves for every 10 °C."
        />
      </section>
      <section class="sheet grid gap-4 p-5 sm:grid-cols-2">
        <h2 class="text-xl sm:col-span-2">How it is written</h2>
        <PlanField
          path="/rig/currency"
          label="Currency"
          text
          hint="Three letters, such as EUR. Nothing is converted."
        />
        <PlanChoice
          path="/rig/units"
          label="Units"
          :value="rig.units as string"
          :options="[
            { value: 'metric', name: 'Metric: kg, °C' },
            { value: 'us', name: 'US: lb, °F' },
          ]"
        />
      </section>
      <section class="sheet p-5">
        <h2 class="text-xl">Notes</h2>
        <PlanField path="/rig/notes" label="Notes" bare text :rows="6" class="mt-3" />
      </section>
    </div>
    <div>
      <OldBank />
    </div>
  </div>
</template>
