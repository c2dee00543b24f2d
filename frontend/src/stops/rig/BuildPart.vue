<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/rig'
import { TERMINALS } from '@/ui/terminals'
import { usePlan } from '@/stores/plan'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PictureStrip from '@/ui/PictureStrip.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const rig = computed(() => plan.document.rig)
</script>

<template>
  <section class="sheet grid grid-cols-2 gap-4 p-5 sm:grid-cols-3">
    <h2 class="col-span-full text-xl">{{ phrase('rig.build_part.locker_cables_chargers') }}</h2>
    <PlanChoice
      path="/rig/locker_opens"
      :label="phrase('rig.build_part.locker_opens')"
      :value="rig.locker_opens as string"
      :options="
        choicesOf('rig.locker_opens', {
          top: phrase('rig.build_part.top'),
          front: phrase('rig.build_part.front'),
        })
      "
    />
    <PlanField
      path="/rig/vent_cm2"
      :label="phrase('rig.build_part.ventilation_opening')"
      :placeholder="phrase('rig.build_part.measured')"
      class="sm:col-span-2"
    />
    <PlanCheck
      path="/rig/locker_vented"
      :label="phrase('rig.build_part.sealed_living_space_vented')"
      :value="rig.locker_vented === true"
      class="col-span-full"
    />
    <PlanCheck
      path="/rig/locker_insulated"
      :label="phrase('rig.build_part.locker_insulated')"
      :value="rig.locker_insulated === true"
      class="col-span-full"
    />
    <PlanField
      path="/rig/cable_mm2"
      :label="phrase('rig.build_part.main_cable')"
      :placeholder="phrase('rig.build_part.known')"
    />
    <PlanField
      path="/rig/fuse_a"
      :label="phrase('rig.build_part.main_fuse')"
      :placeholder="phrase('rig.build_part.known')"
    />
    <PlanField
      path="/rig/fuse_breaks_a"
      :label="phrase('rig.build_part.fuse_breaking_capacity')"
      :placeholder="phrase('rig.build_part.known')"
    />
    <PlanCheck
      path="/rig/cable_clad"
      :label="phrase('rig.build_part.cable_copper_clad_aluminium')"
      :value="rig.cable_clad === true"
      class="col-span-full"
    />
    <PlanChoice
      path="/rig/lugs"
      :label="phrase('rig.build_part.cable_lugs_fit')"
      :value="rig.lugs as string"
      :options="TERMINALS"
    />
    <p v-if="plan.document.sources.length" class="col-span-full leading-snug text-soft">
      {{ phrase('rig.build_part.enter_charging_sources') }}
      <RouterLink
        class="text-sea underline underline-offset-4"
        :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'charging' } }"
        >{{ phrase('rig.build_part.charging') }}</RouterLink>.
    </p>
    <template v-else>
      <PlanField
        path="/rig/charge_a"
        :label="phrase('rig.build_part.chargers_together')"
        :placeholder="phrase('rig.build_part.known')"
        :hint="phrase('rig.build_part.mains_engine_solar_together')"
      />
      <PlanField
        path="/rig/charge_v"
        :label="phrase('rig.build_part.absorption_voltage')"
        :placeholder="phrase('rig.build_part.typical_class')"
      />
      <PlanCheck
        path="/rig/equalises"
        :label="phrase('rig.build_part.charger_equalises')"
        :value="rig.equalises === true"
        class="col-span-full"
      />
    </template>
    <div class="col-span-full">
      <h3 class="font-semibold">{{ phrase('rig.build_part.pictures') }}</h3>
      <p class="text-soft">{{ phrase('rig.build_part.pictures_hint') }}</p>
      <PictureStrip class="mt-1" place="wiring" :of="phrase('rig.build_part.pictures')" />
    </div>
  </section>
</template>
