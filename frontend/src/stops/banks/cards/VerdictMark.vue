<script setup lang="ts">
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check, HelpCircle } from '@lucide/vue'

defineProps<{ verdict: string }>()
</script>

<template>
  <Check v-if="verdict === 'ok'" :size="18" class="text-sea" aria-label="Passes" role="img" />
  <HelpCircle
    v-else-if="verdict === 'unknown'"
    :size="18"
    class="text-soft"
    aria-label="Not known yet"
    role="img"
  />
  <SeverityMark v-else :severity="verdict" />
</template>
