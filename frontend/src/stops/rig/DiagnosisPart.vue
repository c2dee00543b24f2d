<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import FigureLink from '@/ui/FigureLink.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanField from '@/ui/PlanField.vue'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { computed } from 'vue'

const plan = usePlan()
const old = computed(() => plan.document.old_bank!)
const found = computed(() => plan.rig!.banks.diagnosis)
const carries = computed(() => plan.rig!.banks.old_carries)
const NAMES: Record<string, string> = {
  bank: 'The bank',
  charger: 'The charger',
  drain: 'A hidden drain',
  use: 'Grown use',
}
const MARKS: Record<string, string> = {
  'at fault': '✕',
  possible: '?',
  unlikely: '✓',
  'not known': '–',
}
</script>

<template>
  <section v-if="found" class="sheet p-5" data-diagnosis>
    <h2 class="text-xl">Is the old bank really the culprit?</h2>
    <p class="mt-2 text-lg" data-verdict>{{ found.says }}</p>
    <p
      v-if="found.danger"
      class="mt-2 flex gap-2 leading-snug font-semibold text-stop"
      role="alert"
    >
      <SeverityMark severity="stop" class="mt-0.5 shrink-0" /> {{ found.danger }}
    </p>
    <dl class="mt-3 space-y-2">
      <div v-for="s in found.suspects" :key="s.key" class="grid grid-cols-[7.5rem_1fr] gap-x-3">
        <dt>
          <span class="block font-semibold">{{ NAMES[s.key] }}</span>
          <span
            class="text-sm"
            :class="s.verdict === 'at fault' ? 'font-semibold text-stop' : 'text-soft'"
            ><span aria-hidden="true">{{ MARKS[s.verdict] }}</span> {{ s.verdict }}</span
          >
        </dt>
        <dd class="leading-snug">
          <SentenceText :tokens="s.says" /> <span class="text-soft">{{ s.next }}</span>
        </dd>
      </div>
    </dl>
    <div v-if="found.health" class="mt-4 border-t border-line pt-3">
      <p data-tested>
        <FigureLink :figure="found.health" name="State of health" class="text-xl font-semibold" />
        of its capacity is left<span v-if="found.range" class="text-soft"> ({{ found.range }})</span
        ><template v-if="carries.nights"
          >: it still carries
          <FigureLink :figure="carries.nights" name="Nights" class="font-semibold" /></template
        >.
      </p>
      <ul class="mt-2 space-y-1.5" aria-label="What each sign says">
        <li
          v-for="s in found.signs"
          :key="s.name"
          class="grid grid-cols-[9rem_1fr_6.5rem] items-center gap-2 text-sm"
        >
          <span class="text-soft">{{ s.name }}</span>
          <span class="relative h-3 rounded-full bg-well" aria-hidden="true">
            <span
              class="absolute inset-y-0 min-w-1 rounded-full bg-sea"
              :style="{ left: `${s.low * 95}%`, width: `${(s.high - s.low) * 95}%` }"
            />
          </span>
          <span class="text-right">{{ s.text }}</span>
        </li>
      </ul>
      <p v-if="!found.agree" class="mt-1 text-sm text-care">
        The signs disagree: one of the readings is off, or more than one thing is wrong.
      </p>
      <div
        v-if="carries.life_factor"
        class="mt-3 grid items-center gap-x-4 gap-y-2 sm:grid-cols-[1fr_11rem]"
        data-predecessor
      >
        <p class="leading-snug">
          By how this one aged, a new one of its class is reckoned to last
          <FigureLink
            :figure="carries.life_factor"
            name="Life by the old bank"
            class="font-semibold"
          />
          times as long as usual here.
        </p>
        <AssumptionField
          name="predecessor_share"
          label="How much that counts"
          hint="0 when what aged it is mended"
        />
      </div>
    </div>
    <div class="mt-4 grid grid-cols-2 gap-4 border-t border-line pt-4 sm:grid-cols-3">
      <p class="col-span-full font-semibold">What do you know of it?</p>
      <PlanField path="/old_bank/nights_then" label="It lasted, when new" unit="nights" />
      <PlanField path="/old_bank/nights_now" label="It lasts now" unit="nights" />
      <PlanField path="/old_bank/day_then_wh" label="A day then" unit="Wh" placeholder="as now" />
      <PlanField
        path="/old_bank/rested_v"
        label="Rested volts"
        unit="V"
        hint="The whole bank, all off, after the charger said full."
      />
      <PlanField
        path="/old_bank/rested_hours"
        label="Rested for"
        unit="h"
        placeholder="not known"
        hint="Eight hours say most."
      />
      <PlanField path="/old_bank/left_low" label="Times below a fifth for over a day" />
      <PlanField path="/old_bank/deep_accidents" label="Times emptied, recharged within a day" />
      <PlanField path="/old_bank/left_empty" label="Times left empty for a week" />
      <PlanField path="/old_bank/frozen" label="Times frozen" />
      <PlanField path="/old_bank/loaded_v" label="Volts under a load" unit="V" />
      <PlanField path="/old_bank/load_a" label="of" unit="A" hint="Just after the rested volts." />
      <div class="flex flex-col">
        <PlanCheck
          path="/old_bank/smells"
          label="Smells of rotten eggs"
          :value="old.smells as boolean"
        />
        <PlanCheck path="/old_bank/warm" label="Warm while charging" :value="old.warm as boolean" />
        <PlanCheck path="/old_bank/bulges" label="Case bulges" :value="old.bulges as boolean" />
      </div>
      <p class="col-span-full text-sm text-soft">
        Volts read while charging, just after, or under a load say less: they are read with more
        doubt.
      </p>
    </div>
  </section>
</template>
