<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import type { FieldSpec } from './fieldSpec'
import PlanCheck from './PlanCheck.vue'
import PlanChoice from './PlanChoice.vue'
import PlanField from './PlanField.vue'

const props = defineProps<{
  /** JSON pointer of the row. */
  at: string
  field: Omit<FieldSpec<object>, 'key' | 'when'> & { key: string }
  value: unknown
}>()
const plan = usePlan()
const path = computed(() => `${props.at}/${props.field.key}`)
const unit = computed(() => {
  const named = props.field.unit
  const owners: Record<string, string> = plan.rig!.units
  return named === undefined ? undefined : (owners[named] ?? named)
})
const wide = computed(() => (props.field.wide ? 'col-span-2 sm:col-span-3' : ''))
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
    :value="String(value ?? '')"
    :options="field.choices"
    :class="wide"
  />
  <PlanField
    v-else
    :path="path"
    :label="field.name"
    :unit="unit"
    :placeholder="field.empty"
    :hint="field.hint"
    :text="field.text"
    :class="wide"
  />
</template>
