<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { ChevronDown, FileDown, Printer } from '@lucide/vue'
import { computed, ref, useId } from 'vue'

/** The report to print; on request the other papers and files. */
const plan = usePlan()
const at = computed(() => `/api/rigs/${plan.rig!.id}/report`)
const more = ref(false)
const id = useId()
</script>

<template>
  <div class="flex flex-wrap gap-2 print:hidden" data-report-links>
    <slot />
    <a class="btn" :href="`${at}?paper=a4`" target="_blank" rel="noopener">
      <Printer :size="16" aria-hidden="true" />
      {{ phrase('compare.report_links.printable_report') }}
    </a>
    <button
      type="button"
      class="btn btn-quiet"
      :aria-expanded="more"
      :aria-controls="id"
      data-more-files
      @click="more = !more"
    >
      {{ phrase('compare.report_links.more') }}
      <ChevronDown :size="16" aria-hidden="true" :class="more ? 'rotate-180' : ''" />
    </button>
    <p :id="id" class="basis-full" :class="more ? 'flex flex-wrap gap-2' : 'hidden'">
      <a class="btn" :href="`${at}?paper=letter`" target="_blank" rel="noopener">{{
        phrase('compare.report_links.letter_paper')
      }}</a>
      <a class="btn" :href="`${at}?paper=a4&annex=true`" target="_blank" rel="noopener">{{
        phrase('compare.report_links.with_annex')
      }}</a>
      <a class="btn" :href="`${at}?paper=a4&annex=true&save=true`" download>
        <FileDown :size="16" aria-hidden="true" /> {{ phrase('compare.report_links.report_file') }}
      </a>
      <a class="btn" :href="`${at}/comparison.csv`" download>{{
        phrase('compare.report_links.comparison_csv')
      }}</a>
      <a class="btn" :href="`${at}/cash-flow.csv`" download>{{
        phrase('compare.report_links.cash_flow_csv')
      }}</a>
    </p>
  </div>
</template>
