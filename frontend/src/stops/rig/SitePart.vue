<script setup lang="ts">
import type { Operation } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import FigureLink from '@/ui/FigureLink.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const reference = useReference()
const rig = computed(() => plan.document.rig)
const units = computed(() => plan.rig!.units)
const climate = computed(() => rig.value.climate as string | null)
const regions = computed(() => [
  { value: '', name: 'own degrees, or not known' },
  ...(reference.data?.regions ?? []).map((r) => ({ value: r.key, name: r.name })),
])
const climates = computed(() => [
  { value: null, name: 'not known' },
  ...(reference.data?.climates ?? []).map((c) => ({ value: c.key, name: `${c.name}: ${c.why}` })),
])
const PLACES = [
  { value: 'living_space', name: 'Living space' },
  { value: 'inside_locker', name: 'Inside locker' },
  { value: 'outside_box', name: 'Outside box or shed' },
  { value: 'engine_room', name: 'Engine room' },
]

function withRegion(key: string | number | null): Operation[] {
  const region = reference.data?.regions.find((r) => r.key === key)
  if (!region) return []
  return (['latitude', 'longitude', 'utc_offset_h', 'climate'] as const).map((field) => ({
    op: 'replace',
    path: `/rig/${field}`,
    value: region[field],
  }))
}
</script>

<template>
  <section class="sheet grid grid-cols-2 gap-4 p-5">
    <h2 class="col-span-2 text-xl">Where it is, and where the battery stands</h2>
    <PlanChoice
      path="/rig/region"
      label="Region"
      :value="rig.region as string"
      :options="regions"
      :also="withRegion"
      class="col-span-2 sm:col-span-1"
    />
    <PlanChoice
      path="/rig/climate"
      label="Climate"
      :value="climate"
      :options="climates"
      class="col-span-2 sm:col-span-1"
    />
    <PlanField path="/rig/latitude" label="Latitude" unit="°" placeholder="52.2 N" />
    <PlanField path="/rig/longitude" label="Longitude" unit="°" placeholder="5.3 E" />
    <PlanChoice
      path="/rig/place"
      label="The battery stands in"
      called="place of the battery"
      :value="rig.place as string"
      :options="PLACES"
      class="col-span-2 sm:col-span-1"
    />
    <div class="col-span-2 self-end sm:col-span-1" data-seasons>
      <p class="flex justify-between gap-2">
        <span v-for="(f, season) in plan.rig!.seasons" :key="season" class="text-center">
          <span class="block text-sm text-soft capitalize">{{ season }}</span>
          <FigureLink :figure="f" :name="`Battery in ${season}`" />
        </span>
      </p>
    </div>
    <p class="col-span-2 -mt-1 text-sm text-soft">
      So warm is the battery there, by the place and the climate. State it where you know better.
    </p>
    <PlanField
      path="/rig/battery_c"
      label="Battery when used"
      :unit="units.temperature"
      :placeholder="plan.rig!.day.battery.text"
      hint="Of the battery, not of the air."
    />
    <PlanField
      path="/rig/rest_c"
      label="Battery the rest of the year"
      :unit="units.temperature"
      placeholder="by its place"
      hint="Above 25 °C (77 °F) life halves for every 10 °C."
    />
  </section>
</template>
