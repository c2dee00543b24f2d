<script setup lang="ts">
import type { FindingView } from '@/api/client'
import SentenceText from './SentenceText.vue'
import SeverityMark from './SeverityMark.vue'
import TermText from './TermText.vue'

defineProps<{ findings: FindingView[] }>()
</script>

<template>
  <ul v-if="findings.length" class="space-y-2">
    <li
      v-for="(f, i) in findings"
      :key="f.code + i"
      class="flex gap-2 leading-snug"
      :data-finding="f.code"
    >
      <SeverityMark :severity="f.severity" class="mt-0.5 shrink-0" />
      <p>
        <SentenceText :tokens="f.says" />
        <span class="text-soft">{{ ' ' }}<TermText :text="f.remedy" /></span>
      </p>
    </li>
  </ul>
</template>
