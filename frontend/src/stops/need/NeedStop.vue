<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import AssumptionField from '@/ui/AssumptionField.vue'
import AssumptionSlider from '@/ui/AssumptionSlider.vue'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import { computed } from 'vue'
import AssumptionList from './AssumptionList.vue'
import ClassTable from './ClassTable.vue'
import DayNeeds from './DayNeeds.vue'
import HouseRules from './HouseRules.vue'
import RuntimeTool from './RuntimeTool.vue'
import WaterfallPair from './WaterfallPair.vue'

const plan = usePlan()
const reference = useReference()
const SLIDERS = [
  { name: 'nights', least: 0.5, most: 7, step: 0.5 },
  { name: 'reserve', least: 0, most: 1, step: 0.05 },
  { name: 'ageing_allowance', least: 0.7, most: 1, step: 0.05 },
]
const need = computed(() => plan.rig!.need)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'need'))
const bases = computed(() => {
  const rule = reference.data?.rules.find((r) => r.key === plan.document.plan.house_rule)
  return [
    { value: null, name: `as the house rule: ${rule?.life_basis ?? ''}` },
    ...(reference.data?.life_bases ?? []).map((b) => ({ value: b.key, name: b.name })),
  ]
})
</script>

<template>
  <h1 class="text-3xl">The need</h1>
  <p class="mt-1 max-w-3xl text-pretty text-soft">
    Usable energy between two charges, and what the label of each chemistry must say to give it.
  </p>
  <p class="mt-4 text-xl leading-relaxed" data-main>
    <FigureLink :figure="need.day" name="The day" /> a day ×
    <FigureLink :figure="need.nights" name="Nights" /> × (1 +
    <FigureLink :figure="need.reserve" name="Reserve" /> reserve) =
    <FigureLink :figure="need.energy" name="The need" class="text-3xl font-semibold" /> usable
  </p>
  <p v-if="plan.rig!.day.types.length > 1" class="mt-1 text-soft">
    Made for “{{ need.day_name }}”, the kind of day that governs.
  </p>
  <FindingList :findings="findings" class="mt-3" />
  <h2 class="mt-8 mb-3 text-xl">Whose rule do you follow?</h2>
  <HouseRules />
  <div class="mt-4 grid gap-x-4 gap-y-3 sm:grid-cols-2 lg:grid-cols-[1fr_1fr_1fr_1.3fr_1.3fr]">
    <div
      v-for="a in SLIDERS"
      :key="a.name"
      :class="a.name === 'nights' && plan.document.plan.overnight ? 'opacity-60' : ''"
    >
      <AssumptionField :name="a.name" />
      <AssumptionSlider v-bind="a" />
      <p v-if="a.name === 'nights' && plan.document.plan.overnight" class="text-sm text-soft">
        Not used while you plan overnight.
      </p>
    </div>
    <div>
      <PlanCheck
        path="/plan/overnight"
        label="Plan overnight only: from the last charge of a day to the next"
        :value="plan.document.plan.overnight"
        called="overnight"
        class="mt-4"
      />
      <p class="pl-6.5 text-sm text-soft">
        That takes <FigureLink :figure="need.overnight" name="Overnight" class="text-ink" />;
        charged {{ need.overnight_text }}.
      </p>
    </div>
    <PlanChoice
      path="/plan/life_basis"
      label="Life to reckon with"
      :value="plan.document.plan.life_basis"
      :options="bases"
    />
  </div>
  <h2 class="mt-8 mb-2 text-xl">Each kind of day</h2>
  <section class="sheet px-5 py-3">
    <DayNeeds />
    <p class="mt-2 text-sm text-soft">
      What the label must say in Ah, by class. The plan is made for the kind of day that asks most
      of those that the bank must carry alone, or for the one you choose on the Day stop.
    </p>
  </section>
  <h2 class="mt-8 mb-2 text-xl">Every chemistry side by side</h2>
  <section class="sheet px-5 py-3">
    <ClassTable />
  </section>
  <h2 class="mt-8 mb-2 text-xl">From the day to the label</h2>
  <section class="sheet p-5">
    <p class="mb-4 max-w-3xl text-pretty text-soft">
      Each line adds what one thing costs. The last line is what the label must say; both pictures
      have one scale.
    </p>
    <WaterfallPair />
  </section>
  <template v-if="need.second">
    <h2 class="mt-8 mb-2 text-xl">The second bank</h2>
    <section class="sheet p-5">
      <p>
        <FigureLink :figure="need.second.energy" name="Its need" class="text-xl font-semibold" />
        usable, by itself. On its label:
      </p>
      <p class="mt-2 flex flex-wrap gap-x-6 gap-y-2">
        <span v-for="(l, i) in need.second.labels" :key="i" class="inline-flex items-center gap-2">
          <ChemistryMark :battery-class="need.classes[i]!.battery_class" />
          <FigureLink :figure="l" name="On its label" class="font-semibold" />
        </span>
      </p>
    </section>
  </template>
  <h2 class="mt-8 mb-2 text-xl">How long will it run?</h2>
  <section class="sheet p-5">
    <RuntimeTool />
  </section>
  <h2 class="mt-8 mb-3 text-xl">All assumptions</h2>
  <AssumptionList />
</template>
