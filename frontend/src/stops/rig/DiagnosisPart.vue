<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import { useLogFound } from '@/stores/useLogFound'
import AssumptionField from '@/ui/AssumptionField.vue'
import FoldedFields from '@/ui/FoldedFields.vue'
import FigureLink from '@/ui/FigureLink.vue'
import LogFound from '@/ui/LogFound.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanField from '@/ui/PlanField.vue'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { computed } from 'vue'

const plan = usePlan()
const old = computed(() => plan.document.old_bank!)
const found = computed(() => plan.rig!.banks.diagnosis)
const carries = computed(() => plan.rig!.banks.old_carries)
const logged = useLogFound()
const LOG_PARTS: Record<string, string> = { drain: 'monitor', charger: 'so-far', bank: 'health' }
const logOf = (key: string) =>
  (logged.value as Record<string, string> | null)?.[key in LOG_PARTS ? key : ''] ?? ''
const NAMES: Record<string, string> = {
  bank: phrase('rig.diagnosis_part.bank'),
  charger: phrase('rig.diagnosis_part.charger'),
  drain: phrase('rig.diagnosis_part.hidden_drain'),
  use: phrase('rig.diagnosis_part.higher_use'),
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
    <h2 class="text-xl">{{ phrase('rig.diagnosis_part.old_bank_really_cause') }}</h2>
    <p class="mt-2 text-lg" data-verdict>{{ found.says }}</p>
    <p
      v-if="found.danger"
      class="mt-2 flex gap-2 leading-snug font-semibold text-blocking"
      role="alert"
    >
      <SeverityMark severity="blocking" class="mt-0.5 shrink-0" /> {{ found.danger }}
    </p>
    <dl class="mt-3 space-y-2">
      <div v-for="s in found.suspects" :key="s.key" class="grid grid-cols-[7.5rem_1fr] gap-x-3">
        <dt>
          <span class="block font-semibold">{{ NAMES[s.key] }}</span>
          <span
            v-if="logOf(s.key) && s.verdict !== 'at fault'"
            class="text-sm font-semibold text-caution"
            >{{ phrase('rig.diagnosis_part.in_log') }}</span
          >
          <span
            v-else
            class="text-sm"
            :class="s.verdict === 'at fault' ? 'font-semibold text-blocking' : 'text-soft'"
            ><span aria-hidden="true">{{ MARKS[s.verdict] }}</span> {{ s.verdict }}</span
          >
        </dt>
        <dd class="leading-snug">
          <SentenceText :tokens="s.says" /> <span class="text-soft">{{ s.next }}</span>
          <LogFound
            v-if="logOf(s.key)"
            class="mt-1"
            :says="logOf(s.key)"
            :part="LOG_PARTS[s.key]!"
          />
        </dd>
      </div>
    </dl>
    <div v-if="found.health" class="mt-4 border-t border-line pt-3">
      <p data-tested>
        <FigureLink
          :figure="found.health"
          :name="phrase('rig.diagnosis_part.state_health')"
          class="text-xl font-semibold"
        />
        {{ phrase('rig.diagnosis_part.capacity_left')
        }}<span v-if="found.range" class="text-soft"> ({{ found.range }})</span
        ><template v-if="carries.nights"
          >{{ phrase('rig.diagnosis_part.still_lasts') }}
          <FigureLink
            :figure="carries.nights"
            :name="phrase('rig.diagnosis_part.nights')"
            class="font-semibold" /></template
        >.
      </p>
      <ul class="mt-2 space-y-1.5" :aria-label="phrase('rig.diagnosis_part.sign_shows')">
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
      <p v-if="!found.agree" class="mt-1 text-sm text-caution">
        {{ phrase('rig.diagnosis_part.signs_disagree_readings_wrong') }}
      </p>
      <div
        v-if="carries.life_factor"
        class="mt-3 grid items-center gap-x-4 gap-y-2 sm:grid-cols-[1fr_11rem]"
        data-predecessor
      >
        <p class="leading-snug">
          {{ phrase('rig.diagnosis_part.judging_old_bank_new') }}
          <FigureLink
            :figure="carries.life_factor"
            :name="phrase('rig.diagnosis_part.life_learnt_old_bank')"
            class="font-semibold"
          />
          {{ phrase('rig.diagnosis_part.times_long_usual') }}
        </p>
        <AssumptionField
          name="predecessor_share"
          :label="phrase('rig.diagnosis_part.weight_old_bank')"
          :hint="phrase('rig.diagnosis_part.n0_cause_ageing_fixed')"
        />
      </div>
    </div>
    <FoldedFields
      class="mt-4 border-t border-line pt-2"
      :title="phrase('rig.diagnosis_part.know_about')"
    >
      <div class="grid grid-cols-2 gap-4 sm:grid-cols-3">
        <PlanField
          path="/old_bank/nights_then"
          :label="phrase('rig.diagnosis_part.nights_lasted_when_new')"
        />
        <PlanField
          path="/old_bank/nights_now"
          :label="phrase('rig.diagnosis_part.nights_lasts_now')"
        />
        <PlanField
          path="/old_bank/day_then_wh"
          :label="phrase('rig.diagnosis_part.use_day_back_then')"
          :placeholder="phrase('rig.diagnosis_part.now')"
        />
        <PlanField
          path="/old_bank/rested_v"
          :label="phrase('rig.diagnosis_part.resting_voltage')"
          :hint="phrase('rig.diagnosis_part.whole_bank_everything_off')"
        />
        <PlanField
          path="/old_bank/rested_hours"
          :label="phrase('rig.diagnosis_part.rested')"
          :placeholder="phrase('rig.diagnosis_part.known')"
          :hint="phrase('rig.diagnosis_part.eight_hours_give_best')"
        />
        <PlanField
          path="/old_bank/left_low"
          :label="phrase('rig.diagnosis_part.times_below_20_over')"
        />
        <PlanField
          path="/old_bank/deep_accidents"
          :label="phrase('rig.diagnosis_part.times_emptied_recharged_within')"
        />
        <PlanField
          path="/old_bank/left_empty"
          :label="phrase('rig.diagnosis_part.times_left_empty_week')"
        />
        <PlanField path="/old_bank/frozen" :label="phrase('rig.diagnosis_part.times_frozen')" />
        <PlanField
          path="/old_bank/loaded_v"
          :label="phrase('rig.diagnosis_part.voltage_under_load')"
        />
        <PlanField
          path="/old_bank/load_a"
          :label="phrase('rig.diagnosis_part.of')"
          :hint="phrase('rig.diagnosis_part.right_after_resting_voltage')"
        />
        <div class="flex flex-col">
          <PlanCheck
            path="/old_bank/smells"
            :label="phrase('rig.diagnosis_part.smells_rotten_eggs')"
            :value="old.smells as boolean"
          />
          <PlanCheck
            path="/old_bank/warm"
            :label="phrase('rig.diagnosis_part.gets_warm_while_charging')"
            :value="old.warm as boolean"
          />
          <PlanCheck
            path="/old_bank/bulges"
            :label="phrase('rig.diagnosis_part.case_bulges')"
            :value="old.bulges as boolean"
          />
        </div>
        <p class="col-span-full text-sm text-soft">
          {{ phrase('rig.diagnosis_part.voltage_read_while_charging') }}
        </p>
      </div>
    </FoldedFields>
  </section>
</template>
