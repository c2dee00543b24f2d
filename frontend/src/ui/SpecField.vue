<script setup lang="ts">
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
const path = computed(() => `${props.at}/${props.field.key}`)
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
    :placeholder="field.empty"
    :hint="field.hint"
    :text="field.text"
    :class="wide"
  />
</template>
