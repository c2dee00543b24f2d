<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
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
const reference = useReference()
const regionOf = new Intl.DisplayNames(['en'], { type: 'region' })
/** Each way of writing numbers by an example, and where it is usual. */
const NUMBERS = computed(() => [
  { value: '', name: phrase('rig.rig_stop.no_region') },
  ...(reference.data?.numbers ?? []).map((locale) => ({
    value: locale,
    name: `${new Intl.NumberFormat(locale).format(1918.5)} (${regionOf.of(locale.split('-')[1]!)})`,
  })),
])
const ELSEWHERE = ['test_current', 'test_temperature', 'old_bank_serves', 'locker_space']
const findings = computed(() =>
  plan.rig!.findings.filter((f) => f.stop === 'rig' && !ELSEWHERE.includes(f.code)),
)
</script>

<template>
  <h1 class="text-3xl">{{ phrase('rig.rig_stop.rig') }}</h1>
  <p class="mt-1 max-w-3xl text-pretty text-soft">
    {{ phrase('rig.rig_stop.how_often_off_grid') }}
  </p>
  <FindingList :findings="findings" class="mt-4" />
  <div class="mt-6 grid grid-cols-1 items-start gap-6 lg:grid-cols-2">
    <div class="min-w-0 space-y-6">
      <section class="sheet grid gap-4 p-5 sm:grid-cols-2">
        <PlanField
          path="/rig/name"
          :label="phrase('rig.rig_stop.name')"
          text
          class="sm:col-span-2"
        />
        <PlanChoice
          path="/rig/kind"
          :label="phrase('rig.rig_stop.kind')"
          :value="rig.kind as string"
          :options="KINDS"
        />
        <PlanChoice
          path="/rig/system_v"
          :label="phrase('rig.rig_stop.system_voltage')"
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
        <h2 class="text-xl sm:col-span-2">{{ phrase('rig.rig_stop.units_currency') }}</h2>
        <PlanField
          path="/rig/currency"
          :label="phrase('rig.rig_stop.currency')"
          text
          :hint="phrase('rig.rig_stop.three_letters_such_eur')"
        />
        <PlanChoice
          path="/rig/units"
          :label="phrase('rig.rig_stop.units')"
          :value="rig.units as string"
          :options="[
            { value: 'metric', name: phrase('rig.rig_stop.metric_kg_c_mm') },
            { value: 'us', name: 'US: lb, °F, in' },
          ]"
        />
        <PlanChoice
          path="/rig/numbers"
          :label="phrase('rig.rig_stop.numbers')"
          :value="rig.numbers as string"
          :options="NUMBERS"
        />
        <PlanChoice
          path="/rig/lead"
          :label="phrase('rig.rig_stop.show_use')"
          :value="rig.lead as string"
          :options="[
            { value: 'wh', name: phrase('rig.rig_stop.watt_hours') },
            { value: 'ah', name: phrase('rig.rig_stop.amp_hours_v', { system_v: rig.system_v }) },
          ]"
          class="sm:col-span-2"
        />
        <PlanField
          path="/rig/notes"
          :label="phrase('rig.rig_stop.notes')"
          text
          :rows="5"
          class="sm:col-span-2"
        />
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
