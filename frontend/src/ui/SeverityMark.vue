<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { computed } from 'vue'

const props = defineProps<{ severity: string }>()
const NAMES: Record<string, string> = {
  blocking: phrase('shared.severity_mark.unsuitable'),
  caution: phrase('shared.severity_mark.check'),
  note: phrase('shared.severity_mark.note'),
}
const name = computed(() => NAMES[props.severity] ?? '')
</script>

<template>
  <svg
    v-if="severity"
    viewBox="0 0 20 20"
    width="18"
    height="18"
    role="img"
    :aria-label="name"
    :style="{ color: `var(--${severity})` }"
  >
    <title>{{ name }}</title>
    <path v-if="severity === 'blocking'" d="M6 1h8l5 5v8l-5 5H6l-5-5V6z" fill="currentColor" />
    <path v-else-if="severity === 'caution'" d="M10 1.2 19.4 18.4H.6z" fill="currentColor" />
    <circle v-else cx="10" cy="10" r="8.6" fill="none" stroke="currentColor" stroke-width="1.8" />
    <path
      v-if="severity === 'blocking'"
      d="M6.2 10h7.6"
      stroke="var(--sheet)"
      stroke-width="2.4"
      stroke-linecap="round"
    />
    <path
      v-else-if="severity === 'caution'"
      d="M10 7.4v5M10 15.2v.2"
      stroke="var(--sheet)"
      stroke-width="2.1"
      stroke-linecap="round"
    />
    <path
      v-else
      d="M10 9.4v5M10 6v.2"
      stroke="currentColor"
      stroke-width="2"
      stroke-linecap="round"
    />
  </svg>
</template>
