<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'
import type { Own } from './ownFields'

const props = defineProps<{ field: Own; index: number }>()
const plan = usePlan()
const path = computed(() => `/own_models/${props.index}/${props.field.key}`)
const value = computed(() => plan.document.own_models[props.index]?.[props.field.key] ?? null)
const unit = computed(() => {
  const named = props.field.unit
  if (!named) return undefined
  return named in plan.rig!.units ? plan.rig!.units[named as 'weight'] : named
})
</script>

<template>
  <PlanCheck
    v-if="field.yes"
    :path="path"
    :label="field.name"
    :value="value === true"
    class="col-span-2 self-end"
  />
  <PlanChoice
    v-else-if="field.choices"
    :path="path"
    :label="field.name"
    :value="value as string"
    :options="field.choices"
  />
  <PlanField
    v-else
    :path="path"
    :label="field.name"
    :unit="unit"
    :text="field.words"
    :placeholder="field.empty"
    :class="field.wide ? 'col-span-2 sm:col-span-3' : ''"
  />
</template>
