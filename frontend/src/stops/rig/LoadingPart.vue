<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import FindingList from '@/ui/FindingList.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const kind = computed(() => plan.document.rig.kind as string)
const units = computed(() => plan.rig!.units)
const second = computed(() => plan.document.rig.locker2_length !== null)
const levers = computed(() => kind.value !== 'cabin')
const from = computed(() =>
  kind.value === 'boat'
    ? 'ahead of her middle'
    : kind.value === 'caravan'
      ? 'ahead of the axle'
      : 'ahead of the rear axle',
)
const findings = computed(() => plan.rig!.findings.filter((f) => f.code === 'locker_space'))
</script>

<template>
  <section class="sheet grid grid-cols-3 gap-4 p-5">
    <h2 class="col-span-3 text-xl">Space{{ levers ? ' and weight' : '' }}</h2>
    <PlanField path="/rig/locker_length" label="Locker, length" :unit="units.small_length" />
    <PlanField path="/rig/locker_width" label="width" :unit="units.small_length" />
    <PlanField path="/rig/locker_height" label="height" :unit="units.small_length" />
    <p class="col-span-3 -mt-2 text-sm text-soft">Inside measures, at the narrowest.</p>
    <details class="col-span-3 -mt-2" :open="second">
      <summary class="py-1 text-soft underline decoration-dotted underline-offset-4">
        A second compartment
      </summary>
      <div class="mt-2 grid grid-cols-3 gap-4">
        <PlanField path="/rig/locker2_length" label="Length" :unit="units.small_length" />
        <PlanField path="/rig/locker2_width" label="width" :unit="units.small_length" />
        <PlanField path="/rig/locker2_height" label="height" :unit="units.small_length" />
        <PlanField
          path="/rig/locker2_cable_m"
          label="Cable more to reach it, one way"
          :unit="units.length"
          class="col-span-3 sm:col-span-2"
        />
      </div>
    </details>
    <template v-if="levers">
      <PlanField
        v-if="kind !== 'boat'"
        path="/rig/payload_kg"
        label="Payload left"
        :unit="units.weight"
        placeholder="not weighed"
        class="col-span-3 sm:col-span-1"
      />
      <PlanField
        v-if="kind !== 'boat'"
        path="/rig/base_m"
        :label="kind === 'caravan' ? 'Axle to coupling' : 'Wheelbase'"
        :unit="units.length"
        class="col-span-3 sm:col-span-2"
      />
      <template v-if="kind === 'caravan'">
        <PlanField path="/rig/coupling_kg" label="Coupling load now" :unit="units.weight" />
        <PlanField
          path="/rig/coupling_max_kg"
          label="Permitted"
          :unit="units.weight"
          class="col-span-2"
        />
      </template>
      <template v-if="kind !== 'boat' && kind !== 'caravan'">
        <PlanField path="/rig/front_axle_kg" label="Left on front axle" :unit="units.weight" />
        <PlanField
          path="/rig/rear_axle_kg"
          label="Left on rear axle"
          :unit="units.weight"
          class="col-span-2"
        />
      </template>
      <PlanField path="/rig/old_x_m" label="Old bank" :unit="units.length" />
      <PlanField path="/rig/new_x_m" label="New bank" :unit="units.length" />
      <p class="self-end pb-2 text-sm text-soft">{{ from }}; behind it negative.</p>
    </template>
    <FindingList :findings="findings" class="col-span-3" />
  </section>
</template>
