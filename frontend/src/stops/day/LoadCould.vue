<script setup lang="ts">
import { phrase } from '@/phrases/day'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import type { Load } from '@/api/rigFile'

/** What could be done about a load: only what its owner ticks is ever proposed. */
const props = defineProps<{ load: Load; at: string; called: (what: string) => string }>()
const plan = usePlan()
const could = computed<string[]>(() => props.load.could ?? [])
const WAYS = [
  { key: 'drop', name: phrase('day.load_could.drop') },
  { key: 'gas', name: phrase('day.load_could.gas') },
  { key: 'daylight', name: phrase('day.load_could.daylight') },
]

function toggle(key: string) {
  const value = could.value.includes(key)
    ? could.value.filter((k) => k !== key)
    : [...could.value, key]
  plan.edit(props.called(phrase('day.load_could.edit')), {
    op: 'add',
    path: `${props.at}/could`,
    value,
  })
}
</script>

<template>
  <fieldset>
    <legend class="text-sm font-semibold">{{ phrase('day.load_could.title') }}</legend>
    <label
      v-for="w in WAYS"
      :key="w.key"
      class="mt-1 flex min-h-6 cursor-pointer items-center gap-2 text-sm"
    >
      <input
        type="checkbox"
        class="size-4 accent-sea"
        :checked="could.includes(w.key)"
        :data-could="w.key"
        @change="toggle(w.key)"
      />
      {{ w.name }}
    </label>
    <p class="mt-1 text-sm text-soft">{{ phrase('day.load_could.says') }}</p>
  </fieldset>
</template>
