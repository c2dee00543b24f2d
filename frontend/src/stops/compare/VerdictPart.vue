<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import AssumedOpen from '@/questions/AssumedOpen.vue'
import ImprovementList from './ImprovementList.vue'
import LadderPart from './LadderPart.vue'
import { takePackage } from './packageEdits'
import { usePackages } from './usePackages'
import ProvisionalLine from '@/questions/ProvisionalLine.vue'
import { useOpenTopics } from '@/questions/useOpenTopics'
import { usePlan } from '@/stores/plan'
import { STOP_NAMES, type Stop } from '@/api/lists'
import FoldedSection from '@/ui/FoldedSection.vue'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { Minus, Plus } from '@lucide/vue'
import { computed, nextTick, ref } from 'vue'
import LogFound from '@/ui/LogFound.vue'
import { useLogFound } from '@/stores/useLogFound'
import BuyButton from './BuyButton.vue'
import FamilyPart from './FamilyPart.vue'
import FoundForYou from './FoundForYou.vue'
import QuotePanel from './QuotePanel.vue'
import ReportLinks from './ReportLinks.vue'
import RuleSteps from './RuleSteps.vue'
import SpendElsewhere from './SpendElsewhere.vue'
import FindOut from './FindOut.vue'
import HouseRuleRow from './HouseRuleRow.vue'
import WhatFlips from './WhatFlips.vue'

const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const verdict = computed(() => compare.value.verdict)
const winner = computed(() =>
  compare.value.compared_banks.find((c) => c.id === verdict.value.winner),
)
const sides = computed(() =>
  [
    { key: 'for', name: phrase('compare.verdict_part.reasons'), icon: Plus },
    { key: 'against', name: phrase('compare.verdict_part.reasons_against'), icon: Minus },
  ].map((s) => ({ ...s, list: verdict.value.reasons.filter((r) => r.side === s.key) })),
)
const everyBank = computed(() => [...compare.value.compared_banks, ...verdict.value.found])
const nameOf = (id: string) => everyBank.value.find((c) => c.id === id)?.title ?? ''
const classOf = (id: string) => everyBank.value.find((c) => c.id === id)?.battery_class ?? ''
const topics = useOpenTopics()
const logged = useLogFound()
/** There is an answer that could be provisional. */
const judged = computed(
  () => compare.value.compared_banks.length > 0 && Boolean(plan.rig!.day.total.value),
)
const { answer: packages, asking } = usePackages()
/** What is said once packages were looked for; of the bank alone until then. */
const told = computed(() => (packages.value && !asking.value ? packages.value : verdict.value))
/** The package that is advised, where more is advised than a bank. */
const advice = computed(() =>
  asking.value ? undefined : packages.value?.packages.find((p) => p.key === packages.value!.advice),
)
/** Both families stand beside the verdict once packages were looked for. */
const beside = computed(
  () => judged.value && (!packages.value || packages.value.families.length > 0),
)
const quoteShown = ref(false)
const quoteFold = ref<HTMLElement | null>(null)

async function showQuote() {
  quoteShown.value = true
  await nextTick()
  await nextTick()
  quoteFold.value?.scrollIntoView({ block: 'start' })
  quoteFold.value?.querySelector('textarea')?.focus({ preventScroll: true })
}

const to = (stop: string) => ({ name: 'rig', params: { id: plan.rig!.id, stop } })
</script>

<template>
  <section
    class="sheet border-l-[6px] border-l-sea p-5 sm:px-6 sm:py-5"
    data-main
    data-verdict-card
    :data-kind="verdict.kind"
    :data-winner="verdict.winner ?? ''"
    aria-live="polite"
  >
    <div class="grid gap-x-8 gap-y-5" :class="beside ? 'lg:grid-cols-[1fr_29rem]' : ''">
      <div class="flex min-w-0 flex-col">
        <div v-if="verdict.runs.length" class="mb-4 border-b border-line pb-4" data-runs>
          <h2 class="text-2xl leading-tight">
            <SentenceText :tokens="verdict.runs" plain />
          </h2>
          <p class="mt-1 text-soft">{{ phrase('compare.verdict_part.plan_said') }}</p>
        </div>
        <h2 class="flex items-start gap-3 text-2xl leading-tight">
          <ChemistryMark v-if="winner" :battery-class="winner.battery_class" class="mt-1" />
          <SentenceText :tokens="told.headline" data-headline />
        </h2>
        <ProvisionalLine
          v-if="judged"
          :topics="topics"
          :more="!asking && Boolean(packages?.find_out.length)"
          class="mt-2"
        />
        <LogFound v-if="logged?.verdict" class="mt-2" :says="logged.verdict" part="review" />
        <p v-if="verdict.danger" class="mt-3 font-semibold text-blocking">{{ verdict.danger }}</p>
        <p class="mt-3 max-w-3xl leading-relaxed text-pretty" data-card>
          <template v-for="(s, i) in told.card" :key="i">
            <SentenceText :tokens="s" />{{ ' ' }}
          </template>
        </p>
        <RouterLink
          v-if="verdict.question && !advice"
          class="btn mt-4 self-start"
          data-question
          :to="to(verdict.question)"
          >{{
            phrase('compare.verdict_part.answer_page', {
              STOP_NAMES: STOP_NAMES[verdict.question as Stop],
            })
          }}</RouterLink
        >
        <SpendElsewhere v-if="verdict.kind === 'buy'" />
        <p v-if="winner && !winner.own" class="mt-3 text-sm text-soft" data-typical>
          {{ phrase('compare.verdict_part.typical') }}
          <button
            type="button"
            class="font-semibold text-sea underline underline-offset-4"
            data-enter-quote
            @click="showQuote"
          >
            {{ phrase('compare.verdict_part.enter_quote') }}
          </button>
        </p>
        <ReportLinks class="mt-auto pt-4">
          <button
            v-if="advice?.take.length"
            type="button"
            class="btn btn-main"
            data-plan-advice
            @click="takePackage(advice)"
          >
            {{ phrase('compare.ladder_part.plan_it') }}
          </button>
          <BuyButton v-else-if="verdict.kind === 'buy'" />
        </ReportLinks>
      </div>
      <FamilyPart v-if="beside" :found="packages" :asking="asking" />
    </div>
  </section>
  <template v-if="compare.compared_banks.length">
    <LadderPart v-if="judged" :found="packages" :asking="asking" />
    <div class="mt-4">
      <FindOut v-if="judged && packages && !asking" :found="packages" />
      <ImprovementList v-if="judged && packages" :found="packages" />
      <div ref="quoteFold">
        <FoldedSection name="quote" :title="phrase('compare.quote_panel.title')" :open="quoteShown"
          ><QuotePanel :answers="asking ? [] : (packages?.quotes ?? [])" :says="told.headline"
        /></FoldedSection>
      </div>
      <AssumedOpen v-if="judged" :topics="topics" />
      <FoldedSection
        v-if="verdict.reasons.length"
        name="reasons"
        :title="
          advice?.take.length
            ? phrase('compare.verdict_part.reasons_alone')
            : phrase('compare.verdict_part.reasons_both')
        "
      >
        <section class="grid gap-x-10 gap-y-6 lg:grid-cols-2">
          <div v-for="s in sides" :key="s.key" :data-side="s.key">
            <h3 class="text-lg">{{ s.name }}</h3>
            <ul class="mt-2 space-y-2">
              <li v-for="(r, i) in s.list" :key="i" class="flex gap-2 leading-snug">
                <component
                  :is="s.icon"
                  :size="18"
                  class="mt-0.5 shrink-0"
                  :class="s.key === 'for' ? 'text-sea' : 'text-caution'"
                  aria-hidden="true"
                />
                <p>
                  <SentenceText :tokens="r.says" />
                  <b v-if="r.cared" class="ml-1 text-sm font-semibold text-sea">{{
                    phrase('compare.verdict_part.care_about')
                  }}</b>
                  <RouterLink
                    v-if="r.stop !== 'compare'"
                    :to="to(r.stop)"
                    class="ml-1 text-sm text-soft underline underline-offset-4"
                    >{{ STOP_NAMES[r.stop as Stop] }}</RouterLink
                  >
                </p>
              </li>
              <li v-if="!s.list.length" class="text-soft">
                {{ phrase('compare.verdict_part.none') }}
              </li>
            </ul>
          </div>
        </section>
      </FoldedSection>
      <FoldedSection
        name="found"
        :title="phrase('compare.found_for_you.found_catalogue')"
        :says="verdict.found.length ? `${verdict.found.length}` : ''"
        ><FoundForYou
      /></FoldedSection>
      <FoldedSection name="turns" :title="phrase('compare.what_flips.when_verdict_changes')"
        ><WhatFlips bare
      /></FoldedSection>
      <FoldedSection
        v-if="verdict.outs.length"
        name="outs"
        :title="phrase('compare.verdict_part.unsuitable_banks_make_suitable')"
        :says="`${verdict.outs.length}`"
        data-outs
      >
        <ul class="mt-2 divide-y divide-line border-y border-line">
          <li
            v-for="o in verdict.outs"
            :key="o.id"
            class="grid gap-x-4 gap-y-0.5 py-2.5 sm:grid-cols-[16rem_1fr]"
          >
            <span class="flex items-center gap-2 font-semibold">
              <ChemistryMark :battery-class="classOf(o.id)" class="scale-90" />{{ nameOf(o.id) }}
            </span>
            <p class="leading-snug">
              <SentenceText :tokens="o.says" />
              <span class="text-soft">{{ ' ' + o.needs }}</span>
            </p>
          </li>
        </ul>
      </FoldedSection>
      <FoldedSection
        name="house-rules"
        :title="phrase('compare.house_rule_row.verdict_under_house_rule')"
        ><HouseRuleRow
      /></FoldedSection>
      <FoldedSection name="rules" :title="phrase('compare.rule_steps.how_verdict_reached')"
        ><RuleSteps
      /></FoldedSection>
    </div>
  </template>
</template>
