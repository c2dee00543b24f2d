<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const reference = useReference()
const old = computed(() => plan.document.old_bank)
const figures = computed(() => plan.rig!.banks.old)
const TEST = ['test_current', 'test_temperature', 'old_bank_serves']
const findings = computed(() => plan.rig!.findings.filter((f) => TEST.includes(f.code)))
const classes = computed(
  () => reference.data?.classes.map((c) => ({ value: c.key, name: c.name })) ?? [],
)

function enter() {
  plan.edit('enter the old bank', { op: 'add', path: '/old_bank', value: {} })
}

function clear() {
  plan.edit('remove the old bank', { op: 'replace', path: '/old_bank', value: null })
}
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">The bank that is there now</h2>
    <div v-if="old" class="mt-3 grid grid-cols-2 gap-4">
      <PlanChoice
        path="/old_bank/battery_class"
        label="Class"
        called="class of the old bank"
        :value="old.battery_class as string"
        :options="classes"
        :also="(v) => reference.withClass('/old_bank', old!.battery_class, v)"
        class="col-span-2"
      />
      <PlanField path="/old_bank/unit_v" label="Volts of one battery" unit="V" />
      <PlanField path="/old_bank/unit_ah" label="Label of one battery" unit="Ah" />
      <PlanField path="/old_bank/series" label="In series" />
      <PlanField path="/old_bank/parallel" label="Strings in parallel" />
      <PlanField path="/old_bank/age_years" label="Age" unit="years" placeholder="not known" />
      <PlanField
        path="/old_bank/unit_kg"
        label="Weight of one"
        :unit="plan.rig!.units.weight"
        placeholder="estimated"
      />
      <PlanField
        path="/old_bank/sale_price"
        label="What somebody pays for it"
        :unit="plan.rig!.units.currency"
        placeholder="scrap"
      />
      <PlanField
        path="/old_bank/reason"
        label="Why is it to be replaced?"
        text
        :rows="2"
        class="col-span-2"
      />
      <p v-if="figures.length" class="col-span-2 text-soft">
        By its label
        <FigureLink :figure="figures[0]!" name="Energy" class="font-semibold text-ink" />;
        <FigureLink :figure="figures[1]!" name="Weight" class="font-semibold text-ink" /> to lift
        out.
      </p>
      <div class="col-span-2 grid grid-cols-3 gap-3 border-t border-line pt-4">
        <div class="col-span-3">
          <h3 class="font-sans font-semibold">A capacity test</h3>
          <p class="text-sm text-pretty text-soft">
            Charge it full, let it rest, then draw a steady known current until it falls to 10.5 V
            (LFP: 11.2 V; twice that at 24 V), and stop there.
          </p>
        </div>
        <PlanField path="/old_bank/test_a" label="Current" unit="A" />
        <PlanField path="/old_bank/test_minutes" label="Time" unit="min" />
        <PlanField
          path="/old_bank/test_c"
          label="Battery"
          :unit="plan.rig!.units.temperature"
          :placeholder="plan.document.rig.units === 'us' ? '68' : '20'"
        />
        <FindingList :findings="findings" class="col-span-3" />
      </div>
      <button type="button" class="btn col-span-2 justify-self-start" @click="clear">
        There is none
      </button>
    </div>
    <template v-else>
      <p class="mt-1 text-soft">
        Enter it to see by how much the weight changes and what its scrap is worth.
      </p>
      <button type="button" class="btn mt-3" @click="enter">Enter the old bank</button>
    </template>
  </section>
</template>
