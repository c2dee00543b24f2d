<script setup lang="ts">
import type { Operation } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useId } from 'vue'

const props = defineProps<{
  path: string
  label: string
  value: string | number | null
  options: { value: string | number | null; name: string }[]
  called?: string
  bare?: boolean
  /** What must change with it, in the same edit. */
  also?: (value: string | number | null) => Operation[]
}>()

const plan = usePlan()
const id = useId()

function choose(event: Event) {
  const option = props.options[(event.target as HTMLSelectElement).selectedIndex]!
  const more = props.also?.(option.value) ?? []
  plan.edit(props.called ?? props.label, ...more, {
    op: 'replace',
    path: props.path,
    value: option.value,
  })
}
</script>

<template>
  <div class="min-w-0">
    <label :for="id" :class="bare ? 'sr-only' : 'eyebrow mb-1 block'">{{ label }}</label>
    <select :id="id" class="field" :data-path="path" @change="choose">
      <option
        v-for="o in options"
        :key="String(o.value)"
        :value="o.value"
        :selected="o.value === value"
      >
        {{ o.name }}
      </option>
    </select>
  </div>
</template>
