<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const second = computed(() => plan.document.second_bank)
const need = computed(() => plan.rig!.need.second)

function add() {
  plan.edit(phrase('rig.second_bank.add_a_second_bank'), {
    op: 'replace',
    path: '/second_bank',
    value: {},
  })
}

function remove() {
  const back = plan.document.day.loads.flatMap((load, i) =>
    load.bank === 'second'
      ? [{ op: 'replace' as const, path: `/day/loads/${i}/bank`, value: 'main' }]
      : [],
  )
  plan.edit(phrase('rig.second_bank.remove_second_bank'), ...back, {
    op: 'replace',
    path: '/second_bank',
    value: null,
  })
}
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">{{ phrase('rig.second_bank.second_house_bank') }}</h2>
    <div v-if="second" class="mt-3 grid grid-cols-2 gap-4">
      <PlanField path="/second_bank/name" :label="phrase('rig.second_bank.name')" text />
      <PlanChoice
        path="/second_bank/system_v"
        :label="phrase('rig.second_bank.voltage')"
        :value="second.system_v as number"
        :options="[12, 24, 36, 48].map((v) => ({ value: v, name: `${v} V` }))"
      />
      <PlanField
        path="/second_bank/efficiency"
        :label="phrase('rig.second_bank.efficiency_charger_between')"
        :hint="phrase('rig.second_bank.dc_dc_mostly_0')"
      />
      <PlanField
        path="/second_bank/limit_w"
        :label="phrase('rig.second_bank.highest_power_charger')"
      />
      <PlanField
        path="/second_bank/nights"
        :label="phrase('rig.second_bank.nights_must_last_own')"
        :hint="phrase('rig.second_bank.charger_fails')"
      />
      <p v-if="need" class="self-center text-soft">
        <FigureLink :figure="need.day" :name="phrase('rig.second_bank.day')" class="text-ink" />
        {{ phrase('rig.second_bank.day_used_main_bank') }}
        <FigureLink
          :figure="need.from_main"
          :name="phrase('rig.second_bank.energy_main_bank')"
          class="text-ink"
        />
        {{ phrase('rig.second_bank.for_it') }}
      </p>
      <p class="col-span-2 text-sm text-soft">
        {{ phrase('rig.second_bank.choose_loads_bank_details') }}
      </p>
      <button type="button" class="btn col-span-2 justify-self-start" @click="remove">
        {{ phrase('rig.second_bank.none') }}
      </button>
    </div>
    <template v-else>
      <p class="mt-1 text-pretty text-soft">
        {{ phrase('rig.second_bank.example_12_v_services') }}
      </p>
      <button type="button" class="btn mt-3" @click="add">
        {{ phrase('rig.second_bank.add_second_bank') }}
      </button>
    </template>
  </section>
</template>
