<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import PriorityChoices from '@/ui/PriorityChoices.vue'
import PlanField from '@/ui/PlanField.vue'
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">{{ phrase('rig.cares_part.care_about') }}</h2>
    <p class="mt-1 text-soft">{{ phrase('rig.cares_part.first_choice_counts') }}</p>
    <PriorityChoices class="mt-3" />
    <PlanField
      path="/rig/budget"
      :label="phrase('rig.cares_part.spending_limit')"
      :placeholder="phrase('rig.cares_part.limit')"
      class="mt-4 max-w-[14rem]"
    />
  </section>
</template>
