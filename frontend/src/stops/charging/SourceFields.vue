<script setup lang="ts">
import { usePlan, type Source } from '@/stores/plan'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'
import type { SourceField } from './kinds'

const props = defineProps<{ source: Source; index: number; fields: SourceField[] }>()
const plan = usePlan()
const shown = computed(() => props.fields.filter((f) => !f.when || f.when(props.source)))
const path = (f: SourceField) => `/sources/${props.index}/${f.key}`
const unit = (f: SourceField) => (f.unit === 'currency' ? plan.rig!.units.currency : f.unit)
</script>

<template>
  <template v-for="f in shown" :key="f.key">
    <PlanCheck
      v-if="f.yes"
      :path="path(f)"
      :label="f.name"
      :value="source[f.key] === true"
      class="col-span-2"
    />
    <PlanChoice
      v-else-if="f.choices"
      :path="path(f)"
      :label="f.name"
      :value="source[f.key] as string"
      :options="f.choices"
      class="col-span-2 sm:col-span-1"
    />
    <PlanField
      v-else
      :path="path(f)"
      :label="f.name"
      :unit="unit(f)"
      :placeholder="f.empty"
      :hint="f.hint"
      :text="f.text"
      :class="f.text ? 'col-span-2' : ''"
    />
  </template>
</template>
