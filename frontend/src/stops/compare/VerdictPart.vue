<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { STOP_NAMES, type Stop } from '@/router'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { Minus, Plus } from '@lucide/vue'
import { computed } from 'vue'
import FoundForYou from './FoundForYou.vue'
import GlanceRow from './GlanceRow.vue'
import ReportLinks from './ReportLinks.vue'
import RuleSteps from './RuleSteps.vue'
import SpendElsewhere from './SpendElsewhere.vue'
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
const all = computed(() => [...compare.value.compared_banks, ...verdict.value.found])
const nameOf = (id: string) => all.value.find((c) => c.id === id)?.title ?? ''
const classOf = (id: string) => all.value.find((c) => c.id === id)?.battery_class ?? ''
const to = (stop: string) => ({ name: 'rig', params: { id: plan.rig!.id, stop } })
</script>

<template>
  <section
    class="sheet border-l-[6px] border-l-sea p-6 sm:p-8"
    data-main
    data-verdict-card
    :data-kind="verdict.kind"
    :data-winner="verdict.winner ?? ''"
    aria-live="polite"
  >
    <h2 class="flex items-start gap-3 text-2xl leading-tight sm:text-3xl">
      <ChemistryMark v-if="winner" :battery-class="winner.battery_class" class="mt-1" />
      <SentenceText :tokens="verdict.headline" data-headline />
    </h2>
    <p v-if="verdict.danger" class="mt-3 font-semibold text-stop">{{ verdict.danger }}</p>
    <p class="mt-4 max-w-3xl text-lg leading-relaxed text-pretty" data-card>
      <template v-for="(s, i) in verdict.card" :key="i">
        <SentenceText :tokens="s" />{{ ' ' }}
      </template>
    </p>
    <RouterLink v-if="verdict.question" class="btn mt-4" data-question :to="to(verdict.question)">{{
      phrase('compare.verdict_part.answer_page', {
        STOP_NAMES: STOP_NAMES[verdict.question as Stop],
      })
    }}</RouterLink>
    <SpendElsewhere v-if="verdict.kind === 'buy'" />
    <ReportLinks class="mt-5" />
  </section>
  <template v-if="compare.compared_banks.length">
    <GlanceRow class="mt-6" />
    <FoundForYou class="mt-8" />
    <section v-if="verdict.reasons.length" class="mt-8 grid gap-x-10 gap-y-6 lg:grid-cols-2">
      <div v-for="s in sides" :key="s.key" :data-side="s.key">
        <h2 class="text-xl">{{ s.name }}</h2>
        <ul class="mt-2 space-y-2">
          <li v-for="(r, i) in s.list" :key="i" class="flex gap-2 leading-snug">
            <component
              :is="s.icon"
              :size="18"
              class="mt-0.5 shrink-0"
              :class="s.key === 'for' ? 'text-sea' : 'text-care'"
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
    <WhatFlips class="mt-8" />
    <section v-if="verdict.outs.length" class="mt-8" data-outs>
      <h2 class="text-xl">{{ phrase('compare.verdict_part.unsuitable_banks_make_suitable') }}</h2>
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
    </section>
    <HouseRuleRow class="mt-8" />
    <RuleSteps class="mt-8" />
  </template>
</template>
