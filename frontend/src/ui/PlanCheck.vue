<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import TermText from './TermText.vue'

const props = defineProps<{ path: string; label: string; value: boolean; called?: string }>()
const plan = usePlan()

function change(event: Event) {
  const value = (event.target as HTMLInputElement).checked
  plan.edit(props.called ?? props.label, { op: 'replace', path: props.path, value })
}
</script>

<template>
  <label class="flex cursor-pointer items-start gap-2 py-1 leading-snug">
    <input
      type="checkbox"
      class="mt-0.5 size-4.5 shrink-0 accent-sea"
      :checked="value"
      :data-path="path"
      @change="change"
    />
    <span><TermText :text="label" label /></span>
  </label>
</template>
