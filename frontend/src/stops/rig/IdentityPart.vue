<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { KINDS } from '@/ui/rigKinds'
import { computed } from 'vue'

/** What the rig is. */
const plan = usePlan()
const rig = computed(() => plan.document.rig)
</script>

<template>
  <section class="sheet grid gap-4 p-5 sm:grid-cols-2">
    <h2 class="text-xl sm:col-span-2">{{ phrase('rig.rig_stop.what_it_is') }}</h2>
    <PlanField path="/rig/name" :label="phrase('rig.rig_stop.name')" text class="sm:col-span-2" />
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
</template>
