<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import FoldedFields from '@/ui/FoldedFields.vue'
import FindingList from '@/ui/FindingList.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const rig = computed(() => plan.document.rig)
const kind = computed(() => rig.value.kind as string)
const second = computed(() => plan.document.rig.locker2_length !== null)
const levers = computed(() => kind.value !== 'cabin')
const from = computed(() =>
  kind.value === 'boat'
    ? phrase('rig.loading_part.ahead_her_middle')
    : kind.value === 'caravan'
      ? phrase('rig.loading_part.ahead_axle')
      : phrase('rig.loading_part.ahead_rear_axle'),
)
const findings = computed(() => plan.rig!.findings.filter((f) => f.code === 'locker_space'))
</script>

<template>
  <section class="sheet grid grid-cols-3 gap-4 p-5">
    <h2 class="col-span-3 text-xl">
      {{
        phrase('rig.loading_part.space', {
          levers: levers ? phrase('rig.loading_part.weight') : '',
        })
      }}
    </h2>
    <PlanField path="/rig/locker_length" :label="phrase('rig.loading_part.locker_length')" />
    <PlanField path="/rig/locker_width" :label="phrase('rig.loading_part.width')" />
    <PlanField path="/rig/locker_height" :label="phrase('rig.loading_part.height')" />
    <p class="col-span-3 -mt-2 text-sm text-soft">
      {{ phrase('rig.loading_part.inside_dimensions_narrowest_point') }}
    </p>
    <details class="col-span-3 -mt-2" :open="second">
      <summary class="discloses">
        {{ phrase('rig.loading_part.second_compartment') }}
      </summary>
      <div class="mt-2 grid grid-cols-3 gap-4">
        <PlanField path="/rig/locker2_length" :label="phrase('rig.loading_part.length')" />
        <PlanField path="/rig/locker2_width" :label="phrase('rig.loading_part.width')" />
        <PlanField path="/rig/locker2_height" :label="phrase('rig.loading_part.height')" />
        <PlanField
          path="/rig/locker2_cable_m"
          :label="phrase('rig.loading_part.extra_cable_reach_way')"
          class="col-span-3 sm:col-span-2"
        />
      </div>
    </details>
    <PlanField
      path="/rig/roof_m2"
      :label="phrase('rig.loading_part.roof')"
      :placeholder="phrase('rig.loading_part.unmeasured')"
      class="col-span-3 sm:col-span-1"
    />
    <template v-if="levers">
      <PlanField
        v-if="kind !== 'boat'"
        path="/rig/payload_kg"
        :label="phrase('rig.loading_part.payload_left')"
        :placeholder="phrase('rig.loading_part.weighed')"
        class="col-span-3 sm:col-span-1"
      />
      <FoldedFields
        class="col-span-3 border-t border-line pt-2"
        :title="phrase('rig.loading_part.axles')"
        :filled="rig.base_m !== null || rig.old_x_m !== null || rig.front_axle_kg !== null"
      >
        <div class="grid grid-cols-3 gap-4">
          <PlanField
            v-if="kind !== 'boat'"
            path="/rig/base_m"
            :label="
              kind === 'caravan'
                ? phrase('rig.loading_part.axle_coupling')
                : phrase('rig.loading_part.wheelbase')
            "
            class="col-span-3 sm:col-span-2"
          />
          <template v-if="kind === 'caravan'">
            <PlanField
              path="/rig/coupling_kg"
              :label="phrase('rig.loading_part.coupling_load_now')"
            />
            <PlanField
              path="/rig/coupling_max_kg"
              :label="phrase('rig.loading_part.highest_coupling_load')"
              class="col-span-2"
            />
          </template>
          <template v-if="kind !== 'boat' && kind !== 'caravan'">
            <PlanField
              path="/rig/front_axle_kg"
              :label="phrase('rig.loading_part.margin_front_axle')"
            />
            <PlanField
              path="/rig/rear_axle_kg"
              :label="phrase('rig.loading_part.margin_rear_axle')"
              class="col-span-2"
            />
          </template>
          <PlanField path="/rig/old_x_m" :label="phrase('rig.loading_part.old_bank')" />
          <PlanField path="/rig/new_x_m" :label="phrase('rig.loading_part.new_bank')" />
          <p class="self-end pb-2 text-sm text-soft">
            {{ phrase('rig.loading_part.use_negative_values_behind', { from }) }}
          </p>
        </div>
      </FoldedFields>
    </template>
    <FindingList :findings="findings" class="col-span-3" />
  </section>
</template>
