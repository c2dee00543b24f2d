<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { CandidateView } from '@/api/client'
import { computed, ref } from 'vue'
import CheckList from './CheckList.vue'
import OtherChecks from './OtherChecks.vue'
import VerdictMark from './VerdictMark.vue'

const props = defineProps<{ candidate: CandidateView }>()
const ORDER = ['blocking', 'caution', 'note', 'unknown', 'ok']
const NAMES: Record<string, string> = {
  blocking: phrase('banks.bank_checks.unsuitable'),
  caution: phrase('banks.bank_checks.check'),
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
const blocking = computed(() => checks.value.filter((c) => c.verdict === 'blocking' || c.priced))
const cautions = computed(() => checks.value.filter((c) => c.verdict === 'caution' && !c.priced))
const ruledOut = computed(() => blocking.value.some((c) => c.verdict === 'blocking'))
const open = ref(false)
</script>

<template>
  <section>
    <details v-if="blocking.length" class="mt-1" data-blocking>
      <summary class="discloses">
        <span
          class="line-clamp-1 leading-snug"
          :class="ruledOut ? 'text-blocking' : 'text-caution'"
          >{{ blocking.map((c) => c.name).join(', ') }}</span
        >
      </summary>
      <CheckList :checks="blocking" class="mt-1" />
    </details>
    <details data-checks @toggle="open = ($event.target as HTMLDetailsElement).open">
      <summary class="discloses">
        <span class="sr-only">{{ phrase('banks.bank_checks.all_checks') }}</span>
        <span class="inline-flex flex-wrap items-center gap-x-3 text-sm">
          <span v-for="c in counts" :key="c.verdict" class="flex items-center gap-1">
            <VerdictMark :verdict="c.verdict" class="scale-90" />
            {{ c.count }} {{ NAMES[c.verdict] }}
          </span>
        </span>
      </summary>
      <template v-if="open">
        <CheckList :checks="cautions" class="mt-1" data-cautions />
        <OtherChecks :candidate="candidate" />
      </template>
    </details>
  </section>
</template>
