<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import type { ComparedBankView, Operation } from '@/api/client'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import ExtraFields from '@/ui/ExtraFields.vue'
import PlanField from '@/ui/PlanField.vue'
import { Plus, X } from '@lucide/vue'
import { useBanks } from '@/stores/useBanks'
import { computed } from 'vue'

const props = defineProps<{ column: ComparedBankView }>()
const plan = usePlan()
const { addExtra } = useBanks()
const at = computed(() => `/candidates/${props.column.index}`)
/** None for a bank that was found and is no candidate. */
const candidate = computed(() => plan.document.candidates[props.column.index])
const TAGS = [
  { value: 'needed', name: phrase('compare.extras_list.needed_bank') },
  { value: 'wanted', name: phrase('compare.extras_list.wanted_anyway') },
  { value: 'there', name: phrase('compare.extras_list.already') },
]
const STATES: Record<string, string> = {
  counted: 'counted',
  advised: phrase('compare.extras_list.recommended_counted'),
  struck: phrase('compare.extras_list.left_out'),
  covered: phrase('compare.extras_list.price_below'),
}
const DIFFICULTIES = computed(() => [
  {
    value: null,
    name: phrase('compare.extras_list.parts', { difficulty: props.column.difficulty }),
  },
  { value: 'easy', name: phrase('compare.extras_list.easy_contingency') },
  { value: 'some', name: phrase('compare.extras_list.some') },
  { value: 'hard', name: phrase('compare.extras_list.hard') },
])
const SUMS = [
  ['extras', phrase('compare.extras_list.extras')],
  ['labour', phrase('compare.extras_list.labour')],
  ['contingency', phrase('compare.extras_list.contingency')],
  ['extra_cost', phrase('compare.extras_list.extras_labour')],
  ['purchase', phrase('compare.extras_list.batteries')],
  ['wanted', phrase('compare.extras_list.wanted_anyway_title')],
  ['outlay', phrase('compare.extras_list.up_front_cost')],
  ['old_bank', phrase('compare.extras_list.value_old_bank')],
]

const go = (label: string, operations: unknown) =>
  plan.edit(`${props.column.title}: ${label}`, ...(operations as Operation[]))
</script>

<template>
  <div data-extras>
    <h3 class="mt-4 font-sans font-semibold">
      {{ phrase('compare.extras_list.small_parts_checks_charging') }}
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
            {{ STATES[d.state] }}{{ d.hard ? phrase('compare.extras_list.unsuitable_without') : ''
            }}<template v-if="d.hours">; {{ d.hours }}, {{ d.skill }}</template
            ><template v-if="d.hidden">{{
              phrase('compare.extras_list.also_needed', { hidden: d.hidden })
            }}</template>
          </span>
        </p>
        <FigureLink :figure="d.price" :name="d.name" />
        <div class="flex flex-wrap gap-1.5 md:justify-end">
          <button
            v-if="d.price_it.length && d.state !== 'struck'"
            type="button"
            class="btn min-h-8 px-2 text-sm"
            @click="go(phrase('compare.extras_list.price_extra'), d.price_it)"
          >
            {{ phrase('compare.extras_list.enter_price') }}
          </button>
          <button
            v-if="d.do.length && d.state !== 'struck'"
            type="button"
            class="btn min-h-8 px-2 text-sm"
            :title="phrase('compare.extras_list.also_trial_year')"
            @click="go(phrase('compare.extras_list.choose_change'), d.do)"
          >
            {{ phrase('compare.extras_list.apply') }}
          </button>
          <button
            v-if="d.state !== 'covered' && d.strike.length"
            type="button"
            class="btn min-h-8 px-2 text-sm"
            :aria-pressed="d.state === 'struck'"
            @click="
              go(
                d.state === 'struck'
                  ? phrase('compare.extras_list.count_again')
                  : phrase('compare.extras_list.leave_out'),
                d.strike,
              )
            "
          >
            {{
              d.state === 'struck'
                ? phrase('compare.extras_list.count_it_again')
                : phrase('compare.extras_list.leave_out_title')
            }}
          </button>
        </div>
      </li>
    </ul>
    <p v-else class="mt-1 text-soft">{{ phrase('compare.extras_list.none') }}</p>
    <template v-if="candidate">
      <h3 class="mt-5 font-sans font-semibold">
        {{ phrase('compare.extras_list.extras_added') }}
      </h3>
      <ul class="mt-1 space-y-2">
        <li
          v-for="(x, i) in candidate.extras"
          :key="x.id"
          class="grid items-start gap-2 sm:grid-cols-[1fr_7rem_12rem_7rem_auto]"
        >
          <ExtraFields :at="`${at}/extras/${i}`" :extra="x" :title="column.title" />
          <PlanChoice
            :path="`${at}/extras/${i}/tag`"
            :label="
              phrase('compare.extras_list.purpose', {
                name: x.name || phrase('compare.extras_list.extra'),
              })
            "
            bare
            :value="x.tag"
            :options="TAGS"
          />
          <PlanField
            :path="`${at}/extras/${i}/life_years`"
            :label="
              phrase('compare.extras_list.life_years', {
                name: x.name || phrase('compare.extras_list.extra'),
              })
            "
            bare
            :placeholder="phrase('compare.extras_list.once')"
            :called="phrase('compare.extras_list.life_extra', { title: column.title })"
          />
          <button
            type="button"
            class="btn btn-quiet btn-icon"
            :aria-label="
              phrase('compare.extras_list.remove', {
                name: x.name || phrase('compare.extras_list.extra'),
              })
            "
            @click="
              go(phrase('compare.extras_list.remove_extra'), [
                { op: 'remove', path: `${at}/extras/${i}` },
              ])
            "
          >
            <X :size="15" />
          </button>
        </li>
      </ul>
      <button type="button" class="btn btn-quiet mt-1 -ml-3" data-new @click="addExtra(column)">
        <Plus :size="15" aria-hidden="true" />
        {{ phrase('compare.extras_list.add_extra') }}
      </button>
      <PlanCheck
        :path="`${at}/spare`"
        :label="phrase('compare.extras_list.buy_spare_battery_too')"
        :value="candidate.spare"
        class="mt-3"
      />
    </template>
    <p v-else class="mt-4 text-soft">
      {{ phrase('compare.extras_list.add_bank_comparison_enter') }}
    </p>
    <div class="mt-4 grid gap-x-8 gap-y-4" :class="candidate && 'md:grid-cols-[14rem_1fr]'">
      <PlanChoice
        v-if="candidate"
        :path="`${at}/difficulty`"
        :label="phrase('compare.extras_list.difficulty_installation')"
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
