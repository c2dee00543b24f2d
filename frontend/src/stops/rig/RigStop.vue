<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import FindingList from '@/ui/FindingList.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'
import { KINDS } from '../harbor/kinds'
import BuildPart from './BuildPart.vue'
import CaresPart from './CaresPart.vue'
import DiagnosisPart from './DiagnosisPart.vue'
import LoadingPart from './LoadingPart.vue'
import OldBank from './OldBank.vue'
import SecondBank from './SecondBank.vue'
import SitePart from './SitePart.vue'
import UsePart from './UsePart.vue'
import VoltageChoices from './VoltageChoices.vue'

const plan = usePlan()
const rig = computed(() => plan.document.rig)
const ELSEWHERE = ['test_current', 'test_temperature', 'old_bank_serves', 'locker_space']
const findings = computed(() =>
  plan.rig!.findings.filter((f) => f.stop === 'rig' && !ELSEWHERE.includes(f.code)),
)
</script>

<template>
  <h1 class="text-3xl">The rig</h1>
  <p class="mt-1 max-w-3xl text-pretty text-soft">
    What it is, how often it stands away from hook-up, and how long you will keep it. Only the name
    is needed; what you leave out gets a sensible value. Everything is saved as you type.
  </p>
  <FindingList :findings="findings" class="mt-4" />
  <div class="mt-6 grid grid-cols-1 items-start gap-6 lg:grid-cols-2">
    <div class="min-w-0 space-y-6">
      <section class="sheet grid gap-4 p-5 sm:grid-cols-2">
        <PlanField path="/rig/name" label="Name" text class="sm:col-span-2" />
        <PlanChoice path="/rig/kind" label="Kind" :value="rig.kind as string" :options="KINDS" />
        <PlanChoice
          path="/rig/system_v"
          label="System voltage"
          :value="rig.system_v as number"
          :options="[12, 24, 36, 48].map((v) => ({ value: v, name: `${v} V` }))"
        />
      </section>
      <UsePart />
      <SitePart />
      <LoadingPart />
      <BuildPart />
      <CaresPart />
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
            { value: 'metric', name: 'Metric: kg, °C, mm' },
            { value: 'us', name: 'US: lb, °F, in' },
          ]"
        />
        <PlanChoice
          path="/rig/lead"
          label="Energy of use is shown in"
          :value="rig.lead as string"
          :options="[
            { value: 'wh', name: 'Watt-hours' },
            { value: 'ah', name: `Amp-hours at ${rig.system_v} V` },
          ]"
          class="sm:col-span-2"
        />
        <PlanField path="/rig/notes" label="Notes" text :rows="5" class="sm:col-span-2" />
      </section>
    </div>
    <div class="min-w-0 space-y-6">
      <OldBank />
      <DiagnosisPart />
      <SecondBank />
      <VoltageChoices />
    </div>
  </div>
</template>
