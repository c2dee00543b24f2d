<script setup lang="ts">
import { TERMINALS } from '@/ui/terminals'
import { usePlan } from '@/stores/plan'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const rig = computed(() => plan.document.rig)
const area = computed(() => (rig.value.units === 'us' ? 'sq in' : 'cm²'))
</script>

<template>
  <section class="sheet grid grid-cols-2 gap-4 p-5 sm:grid-cols-3">
    <h2 class="col-span-full text-xl">Locker, cables and chargers</h2>
    <PlanChoice
      path="/rig/locker_opens"
      label="Locker opens"
      :value="rig.locker_opens as string"
      :options="[
        { value: 'top', name: 'At the top' },
        { value: 'front', name: 'At the front' },
      ]"
    />
    <PlanField
      path="/rig/vent_cm2"
      label="Each air opening"
      :unit="area"
      placeholder="not measured"
      class="sm:col-span-2"
    />
    <PlanCheck
      path="/rig/locker_vented"
      label="Closed to the living space and vented to the outside"
      :value="rig.locker_vented === true"
      class="col-span-full"
    />
    <PlanField path="/rig/cable_mm2" label="Main cable" unit="mm²" placeholder="not known" />
    <PlanField path="/rig/fuse_a" label="Main fuse" unit="A" placeholder="not known" />
    <PlanField path="/rig/fuse_breaks_a" label="It interrupts" unit="A" placeholder="not known" />
    <PlanCheck
      path="/rig/cable_clad"
      label="The cable is copper-clad aluminium"
      :value="rig.cable_clad === true"
      class="col-span-full"
    />
    <PlanChoice
      path="/rig/lugs"
      label="Its lugs are for"
      :value="rig.lugs as string"
      :options="TERMINALS"
    />
    <p v-if="plan.document.sources.length" class="col-span-full leading-snug text-soft">
      What charges it stands on
      <RouterLink
        class="text-sea underline underline-offset-4"
        :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'charging' } }"
        >Charging</RouterLink
      >.
    </p>
    <template v-else>
      <PlanField
        path="/rig/charge_a"
        label="All chargers at once"
        unit="A"
        placeholder="not known"
        hint="Mains, engine and sun together."
      />
      <PlanField
        path="/rig/charge_v"
        label="Absorption, for 12 V"
        unit="V"
        placeholder="of the class"
      />
      <PlanCheck
        path="/rig/equalises"
        label="The charger equalises"
        :value="rig.equalises === true"
        class="col-span-full"
      />
    </template>
  </section>
</template>
