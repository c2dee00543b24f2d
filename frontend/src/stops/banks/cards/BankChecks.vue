<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { CandidateView } from '@/api/client'
import { computed, ref } from 'vue'
import CheckList from './CheckList.vue'
import OtherChecks from './OtherChecks.vue'
import VerdictMark from './VerdictMark.vue'

const props = defineProps<{ candidate: CandidateView }>()
const ORDER = ['stop', 'care', 'note', 'unknown', 'ok']
const NAMES: Record<string, string> = {
  stop: phrase('banks.bank_checks.unsuitable'),
  care: phrase('banks.bank_checks.check'),
  note: phrase('banks.bank_checks.know'),
  unknown: phrase('banks.bank_checks.known'),
  ok: phrase('banks.bank_checks.pass'),
}
const checks = computed(() => props.candidate.checks)
const counts = computed(() =>
  ORDER.map((v) => ({
    verdict: v,
    count: v === 'ok' ? props.candidate.passed : checks.value.filter((c) => c.verdict === v).length,
  })).filter((c) => c.count),
)
/** What rules it out, and what would without the remedy in its price: always in sight. */
const stops = computed(() => checks.value.filter((c) => c.verdict === 'stop' || c.priced))
const cares = computed(() => checks.value.filter((c) => c.verdict === 'care' && !c.priced))
const ruledOut = computed(() => stops.value.some((c) => c.verdict === 'stop'))
const open = ref(false)
</script>

<template>
  <section>
    <details v-if="stops.length" class="mt-1" data-stops>
      <summary class="discloses">
        <span class="line-clamp-1 leading-snug" :class="ruledOut ? 'text-stop' : 'text-care'">{{
          stops.map((c) => c.name).join(', ')
        }}</span>
      </summary>
      <CheckList :checks="stops" class="mt-1" />
    </details>
    <details data-checks @toggle="open = ($event.target as HTMLDetailsElement).open">
      <summary class="discloses">
        <span class="sr-only">{{ phrase('banks.bank_checks.checks_2') }}</span>
        <span class="inline-flex flex-wrap items-center gap-x-3 text-sm">
          <span v-for="c in counts" :key="c.verdict" class="flex items-center gap-1">
            <VerdictMark :verdict="c.verdict" class="scale-90" />
            {{ c.count }} {{ NAMES[c.verdict] }}
          </span>
        </span>
      </summary>
      <template v-if="open">
        <CheckList :checks="cares" class="mt-1" data-cares />
        <OtherChecks :candidate="candidate" />
      </template>
    </details>
  </section>
</template>
