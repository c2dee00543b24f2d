<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { RotateCcw } from '@lucide/vue'
import { computed } from 'vue'
import PlanField from './PlanField.vue'

const props = defineProps<{
  name: string
  label?: string
  bare?: boolean
  unit?: string
  hint?: string
}>()
const plan = usePlan()
const found = computed(() => plan.rig?.assumptions.find((a) => a.key === props.name))

function reset() {
  plan.forget(`/plan/overrides/${props.name}`)
  plan.edit(phrase('shared.assumption_field.back_default', { found: found.value?.name }), {
    op: 'remove',
    path: `/plan/overrides/${props.name}`,
  })
}
</script>

<template>
  <div v-if="found" class="flex min-w-0 items-start gap-1">
    <PlanField
      class="grow"
      :path="`/plan/overrides/${name}`"
      :label="label ?? found.name"
      :called="found.name"
      :fallback="found.field"
      :bare="bare"
      :unit="unit"
      :hint="hint"
    />
    <button
      v-if="found.overridden"
      type="button"
      class="btn btn-icon shrink-0"
      :class="bare ? '' : 'mt-[1.45rem]'"
      :aria-label="
        phrase('shared.assumption_field.back', { default: found.default, name: found.name })
      "
      :title="phrase('shared.assumption_field.changed_back', { default: found.default })"
      @click="reset"
    >
      <RotateCcw :size="15" />
    </button>
  </div>
</template>
