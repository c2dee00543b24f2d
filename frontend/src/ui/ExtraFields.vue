<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import PlanField from './PlanField.vue'

/** Name and price of an extra of a bank, as two cells. */
defineProps<{ at: string; extra: { name: string }; title: string }>()
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
    :called="phrase('shared.extra_fields.price_extra', { title })"
  />
</template>
