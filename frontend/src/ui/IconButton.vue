<script setup lang="ts">
import type { Component } from 'vue'

withDefaults(
  defineProps<{
    icon: Component
    /** What it does, for those who do not see the picture. */
    label: string
    /** What it does, on hover; the label if not given. */
    hint?: string
    disabled?: boolean
    /** In a row of a table or a lane. */
    small?: boolean
  }>(),
  { hint: undefined },
)
</script>

<template>
  <button
    type="button"
    class="btn btn-quiet"
    :class="small ? 'size-8 min-h-0 p-0 text-soft' : 'btn-icon'"
    :aria-label="label"
    :title="hint ?? label"
    :disabled="disabled"
  >
    <component :is="icon" :size="small ? 15 : 18" />
  </button>
</template>
