<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import FoldedFields from '@/ui/FoldedFields.vue'
import MonthPicker from '@/ui/MonthPicker.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const rig = computed(() => plan.document.rig)
const moves = computed(() => rig.value.kind !== 'cabin')
</script>

<template>
  <section class="sheet grid grid-cols-2 gap-4 p-5">
    <h2 class="col-span-2 text-xl">{{ phrase('rig.use_part.use') }}</h2>
    <PlanField
      path="/rig/off_grid_nights"
      :label="phrase('rig.use_part.off_grid_nights_year')"
      :hint="phrase('rig.use_part.nights_without_hook_up')"
    />
    <PlanField
      path="/rig/nights_in_a_row"
      :label="phrase('rig.use_part.longest_run_off_grid')"
      :placeholder="phrase('rig.use_part.known')"
    />
    <PlanField path="/rig/hook_up_nights" :label="phrase('rig.use_part.nights_hook_up')" />
    <PlanField
      v-if="moves"
      path="/rig/drive_hours"
      :label="
        rig.kind === 'boat'
          ? phrase('rig.use_part.engine_hours_travelling_day')
          : phrase('rig.use_part.driving_hours_travelling_day')
      "
    />
    <PlanField
      v-if="moves"
      path="/rig/drive_every"
      :label="phrase('rig.use_part.move_every')"
      :placeholder="phrase('rig.use_part.when_run_ends')"
    />
    <PlanField
      path="/rig/years_kept"
      :label="phrase('rig.use_part.years_keep_rig')"
      :hint="phrase('rig.use_part.costs_calculated_over_years')"
    />
    <MonthPicker class="col-span-2" />
    <FoldedFields
      class="col-span-2 border-t border-line pt-2"
      :title="phrase('rig.use_part.else_limits_stay')"
      :filled="rig.water_nights !== null || rig.waste_nights !== null || rig.gas_nights !== null"
    >
      <div class="grid grid-cols-3 gap-3">
        <PlanField
          path="/rig/water_nights"
          :label="phrase('rig.use_part.water')"
          :placeholder="phrase('rig.use_part.never')"
        />
        <PlanField
          path="/rig/waste_nights"
          :label="phrase('rig.use_part.waste_tank')"
          :placeholder="phrase('rig.use_part.never')"
        />
        <PlanField
          path="/rig/gas_nights"
          :label="phrase('rig.use_part.gas')"
          :placeholder="phrase('rig.use_part.never')"
        />
        <p class="col-span-3 text-sm text-soft">
          {{ phrase('rig.use_part.bank_lasts_longer_partly') }}
        </p>
      </div>
    </FoldedFields>
  </section>
</template>
