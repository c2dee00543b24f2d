<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { CandidateView } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import StepField from '@/ui/StepField.vue'
import { X } from '@lucide/vue'
import { computed } from 'vue'
import BankChecks from './BankChecks.vue'
import BankExtras from './BankExtras.vue'
import BankStages from './BankStages.vue'
import { useBanks } from '@/stores/useBanks'
import { useModels } from '@/stops/banks/catalogue/useModels'

const props = defineProps<{
  candidate: CandidateView
  /** The largest of all banks, which the bars end at: usable energy, weight, price of the batteries. */
  most: Record<string, number>
}>()
const plan = usePlan()
const reference = useReference()
const { set, remove } = useBanks()

const f = computed(() => props.candidate.figures)
const { ofClass } = useModels()
const models = computed(() => ofClass(props.candidate.battery_class))
const need = computed(() => plan.rig!.need.energy.value ?? 0)
const BARS: [string, string][] = [
  ['usable_wh', phrase('banks.bank_card.usable')],
  ['kg', phrase('banks.bank_card.weight')],
  ['purchase', phrase('banks.bank_card.batteries')],
]
const bars = computed(() => BARS.filter(([key]) => f.value[key]))
const share = (key: string, value: number) =>
  `${Math.min(100, Math.max(1, (value / (props.most[key] || 1)) * 100))}%`
const ROWS: [string, string][] = [
  ['usable_ah', phrase('banks.bank_card.usable_amp_hours')],
  ['nameplate_wh', phrase('banks.bank_card.rated_energy')],
  ['nameplate_ah', phrase('banks.bank_card.amp_hours')],
  ['kg_change', phrase('banks.bank_card.change_old_bank')],
  ['extras', phrase('banks.bank_card.extras_added')],
]
const GUARDS = [
  { value: 'none', name: phrase('banks.bank_card.none_yet') },
  { value: 'external_bms', name: phrase('banks.bank_card.external_bms_contactor') },
  { value: 'cut_offs', name: phrase('banks.bank_card.cut_offs_inverter_charger') },
]
const stages = computed(() => plan.document.candidates[props.candidate.index]?.stages ?? [])
/** Its number follows the need, and was not set by hand. */
const matching = computed(
  () =>
    props.candidate.proposed_parallel && !plan.document.candidates[props.candidate.index]?.series,
)
const rows = computed(() =>
  ROWS.filter(([key]) => f.value[key] && (key !== 'extras' || f.value[key].value)),
)

const own = computed(() => plan.document.own_models.some((m) => m.id === props.candidate.model))
function matchNeed() {
  const at = `/candidates/${props.candidate.index}`
  return plan.edit(
    phrase('banks.bank_card.match_need', { title: props.candidate.title }),
    { op: 'replace', path: `${at}/parallel`, value: null },
    { op: 'replace', path: `${at}/series`, value: null },
  )
}

function choose(event: Event) {
  const value = (event.target as HTMLSelectElement).value || null
  set(props.candidate, 'model', value, 'model')
}
</script>

<template>
  <article class="sheet flex flex-col px-4 py-3" :data-candidate="candidate.id">
    <header class="flex items-start gap-3">
      <ChemistryMark :battery-class="candidate.battery_class" />
      <div class="min-w-0 grow leading-tight">
        <h2 class="text-lg">{{ candidate.title }}</h2>
        <p class="text-sm text-soft first-letter:uppercase">
          {{ reference.classes.get(candidate.battery_class)?.short }} ·
          {{ own ? phrase('banks.bank_card.own') : phrase('banks.bank_card.typical') }}
        </p>
      </div>
      <button
        type="button"
        class="btn btn-quiet btn-icon -mt-1 -mr-1"
        :aria-label="phrase('banks.bank_card.remove', { title: candidate.title })"
        @click="remove(candidate)"
      >
        <X :size="17" />
      </button>
    </header>
    <button
      v-if="!matching && !f.usable_wh"
      type="button"
      class="btn mt-2 self-start"
      @click="matchNeed"
    >
      {{ phrase('banks.bank_card.match_the_need') }}
    </button>
    <template v-if="f.usable_wh">
      <dl class="mt-2 space-y-1.5">
        <div v-for="[key, name] in bars" :key="key">
          <dt class="float-left text-sm text-soft">{{ name }}</dt>
          <dd>
            <p class="text-right leading-tight">
              <FigureLink
                :figure="f[key]!"
                :name="name"
                :class="key === 'usable_wh' ? 'text-xl font-semibold' : 'font-semibold'"
              />
            </p>
            <span class="relative mt-0.5 block h-2 rounded-full bg-line" aria-hidden="true">
              <span
                class="block h-full rounded-full"
                :style="{
                  width: share(key, f[key]!.value ?? 0),
                  background: `var(--chem-${candidate.battery_class})`,
                }"
              />
              <span
                v-if="need && key === 'usable_wh'"
                class="absolute -inset-y-1 w-0.5 bg-ink"
                :style="{ left: share(key, need) }"
              />
            </span>
          </dd>
        </div>
      </dl>
      <p
        v-if="need && matching && (f.usable_wh.value ?? 0) >= need"
        class="mt-1.5 text-sm text-soft"
      >
        {{ phrase('banks.bank_card.matches_need') }}
      </p>
      <button
        v-else-if="need && !matching"
        type="button"
        class="mt-1.5 self-start text-sm font-semibold text-sea underline underline-offset-4"
        @click="matchNeed"
      >
        {{ phrase('banks.bank_card.match_the_need') }}
      </button>
    </template>
    <details class="mt-2" data-layout :open="!f.usable_wh">
      <summary class="discloses">
        {{ candidate.layout || phrase('banks.bank_card.layout') }}
      </summary>
      <label class="mt-2 block">
        <span class="sr-only">{{
          phrase('banks.bank_card.model', { title: candidate.title })
        }}</span>
        <select class="field" @change="choose">
          <option value="" :selected="candidate.proposed_model">
            {{ phrase('banks.bank_card.lowest_lifetime_cost') }}
          </option>
          <option
            v-for="m in models"
            :key="m.model"
            :value="m.model"
            :selected="!candidate.proposed_model && m.model === candidate.model"
          >
            {{ m.title }}
          </option>
        </select>
      </label>
      <div class="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <div>
          <p class="eyebrow mb-1">{{ phrase('banks.bank_card.series') }}</p>
          <StepField
            :label="phrase('banks.bank_card.title_series', { title: candidate.title })"
            :value="candidate.series ?? 1"
            :most="24"
            @step="(n) => set(candidate, 'series', n, 'in series')"
          />
        </div>
        <div>
          <p class="eyebrow mb-1">{{ phrase('banks.bank_card.parallel') }}</p>
          <StepField
            :label="phrase('banks.bank_card.title_parallel', { title: candidate.title })"
            :value="candidate.parallel ?? 1"
            @step="(n) => set(candidate, 'parallel', n, phrase('banks.bank_card.in_parallel'))"
          />
        </div>
      </div>
    </details>
    <template v-if="f.usable_wh">
      <details data-more-figures>
        <summary class="discloses">{{ phrase('banks.bank_card.more_figures') }}</summary>
        <dl class="divide-y divide-line">
          <div v-for="[key, name] in rows" :key="key" class="flex justify-between gap-3 py-1">
            <dt class="text-soft">{{ name }}</dt>
            <dd><FigureLink :figure="f[key]!" :name="name" /></dd>
          </div>
        </dl>
      </details>
      <details data-quote>
        <summary class="discloses">
          {{ phrase('banks.bank_card.quote_extras_purchase_steps') }}
          <span v-if="stages.length" class="ml-1 font-semibold text-ink">{{ stages.length }}</span>
        </summary>
        <div class="mt-2 grid grid-cols-[1fr_7.5rem] gap-2">
          <PlanField
            :path="`/candidates/${candidate.index}/unit_price`"
            :label="phrase('banks.bank_card.quoted_price_battery')"
            :called="phrase('banks.bank_card.price', { title: candidate.title })"
            :placeholder="phrase('banks.bank_card.list_price', { unit_price: f.unit_price?.text })"
          />
          <PlanField
            :path="`/candidates/${candidate.index}/price_date`"
            :label="phrase('banks.bank_card.on')"
            text
            :called="phrase('banks.bank_card.date_price', { title: candidate.title })"
            :placeholder="phrase('banks.bank_stages.month_example')"
          />
        </div>
        <BankExtras :candidate="candidate" class="mt-3" />
        <BankStages :candidate="candidate" class="mt-1" />
      </details>
      <PlanChoice
        v-if="candidate.no_switch"
        :path="`/candidates/${candidate.index}/protection`"
        :label="phrase('banks.bank_card.cell_protection')"
        :value="plan.document.candidates[candidate.index]?.protection ?? 'none'"
        :options="GUARDS"
        class="mt-2"
      />
    </template>
    <BankChecks
      v-if="candidate.checks.length || candidate.passed"
      :candidate="candidate"
      class="mt-3 border-t border-line pt-3"
    />
    <FindingList v-else :findings="candidate.findings" class="mt-4 border-t border-line pt-3" />
  </article>
</template>
