<script setup lang="ts">
import type { Operation } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed, ref, useId, watch } from 'vue'
import TermText from './TermText.vue'

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

const select = ref<HTMLSelectElement | null>(null)
const problem = computed(() => (plan.refused?.path === props.path ? plan.refused.message : ''))
watch(problem, (now) => {
  const stands = props.options.findIndex((o) => o.value === props.value)
  if (now && select.value) select.value.selectedIndex = stands
})

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
    <label v-if="bare" :for="id" class="sr-only">{{ label }}</label>
    <label v-else :for="id" class="eyebrow mb-1 block"><TermText :text="label" label /></label>
    <select
      :id="id"
      ref="select"
      class="field"
      :aria-describedby="problem ? `${id}-problem` : undefined"
      :data-path="path"
      @change="choose"
    >
      <option
        v-for="o in options"
        :key="String(o.value)"
        :value="o.value"
        :selected="o.value === value"
      >
        {{ o.name }}
      </option>
    </select>
    <p
      v-if="problem"
      :id="`${id}-problem`"
      class="mt-1 text-sm leading-snug text-blocking"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>
