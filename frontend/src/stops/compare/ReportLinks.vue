<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { FileDown, Printer } from '@lucide/vue'
import { computed } from 'vue'

const plan = usePlan()
const at = computed(() => `/api/rigs/${plan.rig!.id}/report`)
</script>

<template>
  <p class="flex flex-wrap gap-2 print:hidden" data-report-links>
    <a class="btn btn-main" :href="`${at}?paper=a4`" target="_blank" rel="noopener">
      <Printer :size="16" aria-hidden="true" />
      {{ phrase('compare.report_links.printable_report') }}
    </a>
    <a class="btn" :href="`${at}?paper=letter`" target="_blank" rel="noopener">{{
      phrase('compare.report_links.letter_paper')
    }}</a>
    <a class="btn" :href="`${at}?paper=a4&save=true`" download>
      <FileDown :size="16" aria-hidden="true" /> {{ phrase('compare.report_links.report_file') }}
    </a>
    <a class="btn" :href="`${at}/comparison.csv`" download>{{
      phrase('compare.report_links.comparison_csv')
    }}</a>
    <a class="btn" :href="`${at}/cash-flow.csv`" download>{{
      phrase('compare.report_links.cash_flow_csv')
    }}</a>
  </p>
</template>
