<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import PlanField from './PlanField.vue'

/** Name and price of an extra of a bank, as two cells. */
defineProps<{ at: string; extra: { name: string }; title: string }>()
const plan = usePlan()
</script>

<template>
  <PlanField
    :path="`${at}/name`"
    :label="phrase('shared.extra_fields.item')"
    bare
    text
    :placeholder="phrase('shared.extra_fields.charger_box_cable')"
    :called="phrase('shared.extra_fields.extra', { title })"
  />
  <PlanField
    :path="`${at}/price`"
    :label="
      phrase('shared.extra_fields.price', {
        name: extra.name || phrase('shared.extra_fields.the_extra'),
      })
    "
    bare
    :unit="plan.rig!.units.currency"
    :called="phrase('shared.extra_fields.price_extra', { title })"
  />
</template>
