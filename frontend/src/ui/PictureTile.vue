<script setup lang="ts">
import { Check } from '@lucide/vue'
import type { Component } from 'vue'

/** Something to choose by its picture. */
defineProps<{ icon?: Component; name: string; says?: string; chosen: boolean; several?: boolean }>()
</script>

<template>
  <button
    type="button"
    class="relative flex min-h-11 min-w-0 items-center gap-3 rounded-lg border p-3 text-left leading-snug hover:bg-wash max-sm:gap-2 max-sm:p-2.5"
    :class="
      chosen ? 'border-sea bg-wash shadow-[inset_0_0_0_1px_var(--sea)]' : 'border-edge bg-sheet'
    "
    :aria-pressed="chosen"
  >
    <slot>
      <component :is="icon" v-if="icon" :size="26" class="shrink-0 text-sea" aria-hidden="true" />
    </slot>
    <span class="min-w-0 grow">
      <span class="block font-semibold break-words max-sm:text-[0.94rem]">{{ name }}</span>
      <span v-if="says" class="block text-sm text-soft">{{ says }}</span>
    </span>
    <span
      v-if="several"
      class="grid size-5 shrink-0 place-items-center rounded border"
      :class="chosen ? 'border-sea bg-sea text-onsea' : 'border-edge'"
      aria-hidden="true"
    >
      <Check v-if="chosen" :size="14" />
    </span>
  </button>
</template>
