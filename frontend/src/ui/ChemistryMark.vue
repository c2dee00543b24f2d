<script setup lang="ts">
import { useReference } from '@/stores/reference'
import { computed } from 'vue'
import { PATTERNS } from './chemistry'

const props = defineProps<{
  batteryClass: string
  name?: boolean
  /** Code and number, where several banks of its class are shown. */
  mark?: string
}>()
const reference = useReference()
const found = computed(() => reference.classes.get(props.batteryClass))
const dash = computed(() => PATTERNS[props.batteryClass]?.svg ?? '')
</script>

<template>
  <span class="inline-flex items-center gap-2 align-middle">
    <svg
      viewBox="0 0 26 30"
      width="26"
      height="30"
      class="shrink-0"
      :style="{ color: `var(--chem-${batteryClass})` }"
      :aria-label="found?.name"
      role="img"
    >
      <rect x="1" y="1" width="24" height="21" rx="5" fill="currentColor" />
      <text
        x="13"
        :y="mark ? 15.8 : 16.6"
        text-anchor="middle"
        :font-size="mark ? 12 : 14.5"
        font-weight="700"
        fill="var(--sheet)"
      >
        {{ mark || found?.code }}
      </text>
      <path d="M1 27.5H25" stroke="currentColor" stroke-width="3" :stroke-dasharray="dash" />
    </svg>
    <span v-if="name">{{ found?.name }}</span>
  </span>
</template>
