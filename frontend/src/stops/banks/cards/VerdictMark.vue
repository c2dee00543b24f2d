<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check, HelpCircle } from '@lucide/vue'

defineProps<{ verdict: string }>()
</script>

<template>
  <Check
    v-if="verdict === 'ok'"
    :size="18"
    class="text-sea"
    :aria-label="phrase('banks.verdict_mark.passed')"
    role="img"
  />
  <HelpCircle
    v-else-if="verdict === 'unknown'"
    :size="18"
    class="text-soft"
    :aria-label="phrase('banks.verdict_mark.known_yet')"
    role="img"
  />
  <SeverityMark v-else :severity="verdict" />
</template>
