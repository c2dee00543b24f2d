<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { CandidateView } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useRows } from '@/stores/useRows'
import FigureLink from '@/ui/FigureLink.vue'
import IconButton from '@/ui/IconButton.vue'
import PlanField from '@/ui/PlanField.vue'
import StepField from '@/ui/StepField.vue'
import { CalendarPlus, Trash2 } from '@lucide/vue'
import { computed } from 'vue'

const props = defineProps<{ candidate: CandidateView }>()
const plan = usePlan()
const at = computed(() => `/candidates/${props.candidate.index}/stages`)
const stages = computed(() => plan.document.candidates[props.candidate.index]?.stages ?? [])

const rows = useRows(
  () => at.value,
  () => stages.value,
)

/** At first the strings are parted between now and later; further steps buy nothing yet. */
function add() {
  const strings = props.candidate.parallel ?? 1
  const label = phrase('banks.bank_stages.step', { title: props.candidate.title })
  if (stages.value.length) return rows.add(label, { id: rows.fresh('s'), when: '', strings: 0 })
  return plan.edit(
    label,
    { op: 'replace', path: `/candidates/${props.candidate.index}/parallel`, value: strings },
    rows.adding({ id: 's1', when: '', strings: Math.max(1, strings - 1) }),
    rows.adding({ id: 's2', when: '', strings: strings > 1 ? 1 : 0 }),
  )
}

function step(i: number, value: number) {
  rows.change(phrase('banks.bank_stages.strings_step'), i, 'strings', value)
}

function remove(i: number) {
  rows.remove(phrase('banks.bank_stages.remove_a_step'), i)
}
</script>

<template>
  <div>
    <ol v-if="stages.length" class="space-y-3">
      <li v-for="(s, i) in stages" :key="s.id" class="rounded-md bg-well p-2.5" :data-stage="s.id">
        <div class="flex items-end gap-2">
          <PlanField
            :path="`${at}/${i}/when`"
            :label="phrase('banks.bank_stages.month')"
            text
            :placeholder="phrase('banks.bank_stages.month_example')"
            class="w-28"
          />
          <div class="grow">
            <p class="eyebrow mb-1">{{ phrase('banks.bank_stages.parallel') }}</p>
            <StepField
              :label="phrase('banks.bank_stages.strings_bought_step', { i: i + 1 })"
              :value="s.strings"
              :least="0"
              @step="(n) => step(i, n)"
            />
          </div>
          <IconButton
            :icon="Trash2"
            small
            :label="phrase('banks.bank_stages.remove_step', { i: i + 1 })"
            @click="remove(i)"
          />
        </div>
        <div class="mt-2 grid grid-cols-[1fr_6.5rem] gap-2">
          <PlanField
            :path="`${at}/${i}/other`"
            :label="phrase('banks.bank_stages.other_purchases')"
            text
            :placeholder="phrase('banks.bank_stages.charger')"
          />
          <PlanField :path="`${at}/${i}/other_price`" :label="phrase('banks.bank_stages.price')" />
        </div>
        <p v-if="candidate.stages[i]" class="mt-2 leading-snug text-soft">
          <FigureLink
            :figure="candidate.stages[i]!.money"
            :name="phrase('banks.bank_stages.cost_step')"
            class="font-semibold text-ink"
          />{{ phrase('banks.bank_stages.then') }}
          <FigureLink
            :figure="candidate.stages[i]!.usable"
            :name="phrase('banks.bank_stages.usable_energy_then')"
            class="text-ink"
          />
          {{ phrase('banks.bank_stages.usable') }}
          <FigureLink
            :figure="candidate.stages[i]!.covered"
            :name="phrase('banks.bank_stages.share_need')"
          />
          {{ phrase('banks.bank_stages.need') }}
          <FigureLink
            :figure="candidate.stages[i]!.nights"
            :name="phrase('banks.bank_stages.nights')"
          />.
        </p>
      </li>
    </ol>
    <button type="button" class="btn btn-quiet -ml-3" @click="add">
      <CalendarPlus :size="15" aria-hidden="true" />
      {{
        stages.length ? phrase('banks.bank_stages.add_step') : phrase('banks.bank_stages.buy_steps')
      }}
    </button>
  </div>
</template>
