<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import type { Measured } from './useChangeover'

/** What a reading should be, and under which conditions. */
defineProps<{ measured: Measured; each?: boolean }>()
</script>

<template>
  <span>
    {{
      each
        ? phrase('changeover.measure.each_should', { likely: measured.likely })
        : phrase('changeover.measure.should', { likely: measured.likely })
    }}
    <span class="text-soft">{{ measured.range }}, {{ measured.under }}</span>
  </span>
</template>
