<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const second = computed(() => plan.document.second_bank)
const need = computed(() => plan.rig!.need.second)

function add() {
  plan.edit('add a second bank', { op: 'replace', path: '/second_bank', value: {} })
}

function remove() {
  const back = plan.document.day.loads.flatMap((load, i) =>
    load.bank === 'second'
      ? [{ op: 'replace' as const, path: `/day/loads/${i}/bank`, value: 'main' }]
      : [],
  )
  plan.edit('remove the second bank', ...back, {
    op: 'replace',
    path: '/second_bank',
    value: null,
  })
}
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">A second house bank</h2>
    <div v-if="second" class="mt-3 grid grid-cols-2 gap-4">
      <PlanField path="/second_bank/name" label="Name" text />
      <PlanChoice
        path="/second_bank/system_v"
        label="Its voltage"
        :value="second.system_v as number"
        :options="[12, 24, 36, 48].map((v) => ({ value: v, name: `${v} V` }))"
      />
      <PlanField
        path="/second_bank/efficiency"
        label="Charger between them, efficiency"
        hint="DC-DC, mostly 0.88 to 0.95."
      />
      <PlanField path="/second_bank/limit_w" label="It gives at most" unit="W" />
      <PlanField
        path="/second_bank/nights"
        label="Lasts by itself"
        unit="nights"
        hint="Should that charger fail."
      />
      <p v-if="need" class="self-center text-soft">
        <FigureLink :figure="need.day" name="Its day" class="text-ink" /> a day hang on it; the main
        bank gives
        <FigureLink :figure="need.from_main" name="From the main bank" class="text-ink" />
        for it.
      </p>
      <p class="col-span-2 text-sm text-soft">
        Which loads hang on it is set in each load’s details on the Day stop. What its label must
        say stands on the Need stop.
      </p>
      <button type="button" class="btn col-span-2 justify-self-start" @click="remove">
        There is none
      </button>
    </div>
    <template v-else>
      <p class="mt-1 text-pretty text-soft">
        Such as a 12 V services bank beside a 24 or 48 V main bank, fed from it by a DC-DC charger.
      </p>
      <button type="button" class="btn mt-3" @click="add">Add a second bank</button>
    </template>
  </section>
</template>
