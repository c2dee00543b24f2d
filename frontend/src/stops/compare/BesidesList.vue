<script setup lang="ts">
import type { ComparedBankView, Operation } from '@/api/client'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { Plus, X } from '@lucide/vue'
import { useBanks } from '@/stores/useBanks'
import { computed } from 'vue'

const props = defineProps<{ column: ComparedBankView }>()
const plan = usePlan()
const { addExtra } = useBanks()
const at = computed(() => `/candidates/${props.column.index}`)
/** None for a bank that was found and is not put up. */
const candidate = computed(() => plan.document.candidates[props.column.index])
const TAGS = [
  { value: 'needed', name: 'needed by this bank' },
  { value: 'wanted', name: 'wanted anyway' },
  { value: 'there', name: 'already there' },
]
const STATES: Record<string, string> = {
  counted: 'counted',
  advised: 'advised, not counted',
  struck: 'struck out',
  covered: 'priced by you below',
}
const DIFFICULTIES = computed(() => [
  { value: null, name: `by its parts: ${props.column.difficulty}` },
  { value: 'easy', name: 'easy, no contingency' },
  { value: 'some', name: 'some' },
  { value: 'hard', name: 'hard' },
])
const SUMS = [
  ['extras', 'Extras'],
  ['labour', 'Labour'],
  ['contingency', 'Contingency'],
  ['extra_cost', 'Besides the batteries'],
  ['purchase', 'Batteries'],
  ['wanted', 'Wanted anyway'],
  ['outlay', 'Cash on the day'],
  ['old_bank', 'Old bank fetches'],
]

const go = (label: string, operations: unknown) =>
  plan.edit(`${props.column.title}: ${label}`, ...(operations as Operation[]))
</script>

<template>
  <div data-besides>
    <h3 class="mt-4 font-sans font-semibold">
      Small parts, and what the checks and the audit of its sources ask for
    </h3>
    <ul v-if="column.required_extras.length" class="mt-1 divide-y divide-line border-y border-line">
      <li
        v-for="d in column.required_extras"
        :key="d.key"
        class="grid items-center gap-x-4 gap-y-1 py-2 md:grid-cols-[1fr_6rem_17.5rem]"
        :data-demand="d.key"
        :data-state="d.state"
      >
        <p class="leading-snug" :class="d.state === 'struck' ? 'text-soft line-through' : ''">
          {{ d.name }}
          <span class="block text-sm text-soft no-underline">
            {{ STATES[d.state] }}{{ d.hard ? ', it will not do without' : ''
            }}<template v-if="d.hours">; {{ d.hours }}, {{ d.skill }}</template
            ><template v-if="d.hidden">. Hangs on it: {{ d.hidden }}</template>
          </span>
        </p>
        <FigureLink :figure="d.price" :name="d.name" />
        <div class="flex flex-wrap gap-1.5 md:justify-end">
          <button
            v-if="d.price_it.length && d.state !== 'struck'"
            type="button"
            class="btn min-h-8 px-2 text-sm"
            @click="go('price an extra', d.price_it)"
          >
            Price it
          </button>
          <button
            v-if="d.do.length && d.state !== 'struck'"
            type="button"
            class="btn min-h-8 px-2 text-sm"
            title="Also in the trial and the year"
            @click="go('take a remedy', d.do)"
          >
            Carry it out
          </button>
          <button
            v-if="d.state !== 'covered' && d.strike.length"
            type="button"
            class="btn min-h-8 px-2 text-sm"
            :aria-pressed="d.state === 'struck'"
            @click="go(d.state === 'struck' ? 'count it again' : 'strike it out', d.strike)"
          >
            {{ d.state === 'struck' ? 'Count it again' : 'Strike out' }}
          </button>
        </div>
      </li>
    </ul>
    <p v-else class="mt-1 text-soft">Nothing.</p>
    <template v-if="candidate">
      <h3 class="mt-5 font-sans font-semibold">What you put down yourself</h3>
      <ul class="mt-1 space-y-2">
        <li
          v-for="(x, i) in candidate.extras"
          :key="x.id"
          class="grid items-start gap-2 sm:grid-cols-[1fr_7rem_12rem_7rem_auto]"
        >
          <PlanField
            :path="`${at}/extras/${i}/name`"
            label="What is bought"
            bare
            text
            placeholder="charger, box, cable"
            :called="`${column.title}: extra`"
          />
          <PlanField
            :path="`${at}/extras/${i}/price`"
            :label="`Price of ${x.name || 'the extra'}`"
            bare
            :unit="plan.rig!.units.currency"
            :called="`${column.title}: price of an extra`"
          />
          <PlanChoice
            :path="`${at}/extras/${i}/tag`"
            :label="`What ${x.name || 'the extra'} is to the bank`"
            bare
            :value="x.tag"
            :options="TAGS"
          />
          <PlanField
            :path="`${at}/extras/${i}/life_years`"
            :label="`Years that ${x.name || 'the extra'} lasts`"
            bare
            unit="years"
            placeholder="once"
            :called="`${column.title}: life of an extra`"
          />
          <button
            type="button"
            class="btn btn-quiet btn-icon"
            :aria-label="`Remove ${x.name || 'the extra'}`"
            @click="go('remove an extra', [{ op: 'remove', path: `${at}/extras/${i}` }])"
          >
            <X :size="15" />
          </button>
        </li>
      </ul>
      <button type="button" class="btn btn-quiet mt-1 -ml-3" data-new @click="addExtra(column)">
        <Plus :size="15" aria-hidden="true" /> Add what must be bought besides
      </button>
      <PlanCheck
        :path="`${at}/spare`"
        label="Buy a spare battery with it"
        :value="candidate.spare"
        class="mt-3"
      />
    </template>
    <p v-else class="mt-4 text-soft">Put this bank up to price, strike out or add anything.</p>
    <div class="mt-4 grid gap-x-8 gap-y-4" :class="candidate && 'md:grid-cols-[14rem_1fr]'">
      <PlanChoice
        v-if="candidate"
        :path="`${at}/difficulty`"
        label="How hard to put in"
        :value="candidate.difficulty"
        :options="DIFFICULTIES"
      />
      <dl class="grid grid-cols-2 gap-x-6 gap-y-1.5 sm:grid-cols-4">
        <template v-for="[key, name] in SUMS" :key="key">
          <div v-if="column.money[key!]?.value || key === 'outlay'">
            <dt class="text-sm text-soft">{{ name }}</dt>
            <dd :class="key === 'outlay' ? 'text-lg font-semibold' : ''">
              <FigureLink :figure="column.money[key!]!" :name="name" />
            </dd>
          </div>
        </template>
      </dl>
    </div>
  </div>
</template>
