<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import AssumptionField from '@/ui/AssumptionField.vue'
import AssumptionSlider from '@/ui/AssumptionSlider.vue'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import { computed } from 'vue'
import AssumptionList from './AssumptionList.vue'
import ClassTable from './ClassTable.vue'
import HouseRules from './HouseRules.vue'
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
    <FigureLink :figure="plan.rig!.day.total" name="The day" /> a day ×
    <FigureLink :figure="need.nights" name="Nights" /> × (1 +
    <FigureLink :figure="need.reserve" name="Reserve" /> reserve) =
    <FigureLink :figure="need.energy" name="The need" class="text-3xl font-semibold" /> usable
  </p>
  <FindingList :findings="findings" class="mt-3" />
  <h2 class="mt-8 mb-3 text-xl">Whose rule do you follow?</h2>
  <HouseRules />
  <div class="mt-4 grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
    <div v-for="a in SLIDERS" :key="a.name">
      <AssumptionField :name="a.name" />
      <AssumptionSlider v-bind="a" />
    </div>
    <PlanChoice
      path="/plan/life_basis"
      label="Life to reckon with"
      :value="plan.document.plan.life_basis"
      :options="bases"
    />
  </div>
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
  <h2 class="mt-8 mb-3 text-xl">All assumptions</h2>
  <AssumptionList />
</template>
