<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Circle, CircleCheck } from '@lucide/vue'

/** How far a step or a gate is: stopped by a reading, done, or open. */
defineProps<{ stopped: boolean; done: boolean }>()
</script>

<template>
  <SeverityMark v-if="stopped" severity="blocking" class="shrink-0" />
  <CircleCheck
    v-else-if="done"
    :size="18"
    class="shrink-0 text-sea"
    :aria-label="phrase('changeover.work.done')"
  />
  <Circle v-else :size="18" class="shrink-0 text-soft" aria-hidden="true" />
</template>
