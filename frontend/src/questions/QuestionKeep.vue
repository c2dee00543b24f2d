<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import PriorityChoices from '@/ui/PriorityChoices.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'

/** How long the rig is kept, who does the work, and what matters beyond money. */
const plan = usePlan()
</script>

<template>
  <div class="grid gap-4 sm:grid-cols-2">
    <PlanField
      path="/rig/years_kept"
      :label="phrase('questions.keep.years')"
      :hint="phrase('questions.keep.years_hint')"
    />
    <PlanChoice
      path="/plan/labour"
      :label="phrase('questions.keep.labour')"
      :value="plan.document.plan.labour as string"
      :options="
        choicesOf('plan.labour', {
          own: phrase('questions.keep.own_hands'),
          workshop: phrase('questions.keep.workshop'),
        })
      "
    />
    <AssumptionField
      name="night_elsewhere"
      :label="phrase('questions.keep.night_price')"
      :unit="plan.rig!.units.money"
      :hint="phrase('questions.keep.night_price_hint')"
    />
    <PlanField
      path="/rig/budget"
      :label="phrase('questions.keep.budget')"
      :placeholder="phrase('questions.keep.no_limit')"
    />
  </div>
  <fieldset class="mt-5">
    <legend class="text-lg font-semibold">{{ phrase('questions.keep.cares') }}</legend>
    <p class="mb-2 text-soft">{{ phrase('questions.keep.cares_hint') }}</p>
    <PriorityChoices />
  </fieldset>
</template>
