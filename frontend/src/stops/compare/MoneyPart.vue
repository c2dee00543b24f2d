<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import CumulativeChart from '@/charts/CumulativeChart.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import { computed, ref } from 'vue'
import ExtrasList from './ExtrasList.vue'
import CapacityChart from './CapacityChart.vue'
import CostSplit from './CostSplit.vue'
import { useDoubt } from './useDoubt'

const plan = usePlan()
const { answer } = useDoubt()
const columns = computed(() => plan.rig!.compare.compared_banks)
const chosen = ref('')
const column = computed(
  () =>
    columns.value.find((c) => c.id === chosen.value) ??
    columns.value.find((c) => c.id === plan.rig!.compare.verdict.winner) ??
    columns.value[0],
)
const EXITS = [
  { value: 0.5, name: phrase('compare.money_part.take_next_rig') },
  { value: 0.3, name: phrase('compare.money_part.sell_rig') },
  { value: 0, name: phrase('compare.money_part.count_value') },
]
const share = computed(
  () => plan.rig!.assumptions.find((a) => a.key === 'exit_share')?.value ?? null,
)

function leave(value: number) {
  plan.edit(phrase('compare.money_part.value_last_bank'), {
    op: 'add',
    path: '/plan/overrides/exit_share',
    value,
  })
}
</script>

<template>
  <section class="sheet p-5"><CostSplit :columns="columns" /></section>
  <div class="mt-6 grid gap-6 lg:grid-cols-2">
    <section class="sheet p-5"><CumulativeChart :bands="answer?.bands ?? []" /></section>
    <section class="sheet p-5"><CapacityChart /></section>
  </div>
  <section class="sheet mt-6 p-5">
    <div class="flex flex-wrap items-end justify-between gap-3">
      <h2 class="text-xl">{{ phrase('compare.money_part.extras_labour') }}</h2>
      <label class="text-sm">
        <span class="eyebrow mb-1 block">{{ phrase('compare.money_part.bank') }}</span>
        <select
          class="field w-auto max-w-64"
          :value="column?.id"
          data-extras-for
          @change="chosen = ($event.target as HTMLSelectElement).value"
        >
          <option v-for="c in columns" :key="c.id" :value="c.id">
            {{ c.title }}
          </option>
        </select>
      </label>
    </div>
    <ExtrasList v-if="column" :column="column" />
  </section>
  <section class="sheet mt-6 p-5">
    <h2 class="text-xl">{{ phrase('compare.money_part.how_cost_calculated') }}</h2>
    <div class="mt-3 grid items-start gap-x-6 gap-y-4 sm:grid-cols-2 lg:grid-cols-4">
      <PlanChoice
        path="/plan/labour"
        :label="phrase('compare.money_part.installed')"
        :value="plan.document.plan.labour"
        :options="[
          { value: 'own', name: phrase('compare.money_part.you') },
          { value: 'workshop', name: phrase('compare.money_part.workshop') },
        ]"
      />
      <PlanChoice
        path="/plan/life_basis"
        :label="phrase('compare.money_part.life_plan')"
        :value="plan.document.plan.life_basis"
        :options="[
          { value: null, name: phrase('compare.money_part.house_rule') },
          { value: 'likely', name: phrase('compare.money_part.likely_life_cycles_age') },
          { value: 'warranty', name: phrase('compare.money_part.warranty_period') },
          { value: 'label_cycles', name: phrase('compare.money_part.rated_cycles') },
        ]"
      />
      <fieldset>
        <legend class="eyebrow mb-1">{{ phrase('compare.money_part.last_bank_end') }}</legend>
        <div class="flex flex-wrap gap-1.5">
          <button
            v-for="e in EXITS"
            :key="e.value"
            type="button"
            class="btn px-2.5 text-sm"
            :class="share === e.value ? 'btn-main' : ''"
            :aria-pressed="share === e.value"
            @click="leave(e.value)"
          >
            {{ e.name }}
          </button>
        </div>
      </fieldset>
      <AssumptionField name="discount_rate" />
      <AssumptionField name="hour_rate" />
      <AssumptionField name="workshop_rate" />
      <AssumptionField name="install_hours" />
      <AssumptionField name="tariff" />
      <AssumptionField name="drift.lead_acid" />
      <AssumptionField name="drift.lfp" />
      <AssumptionField name="exit_refit" />
      <AssumptionField name="water_cost" />
    </div>
  </section>
</template>
