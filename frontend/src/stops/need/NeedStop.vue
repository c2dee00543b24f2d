<script setup lang="ts">
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import AssumptionField from '@/ui/AssumptionField.vue'
import AssumptionSlider from '@/ui/AssumptionSlider.vue'
import FigureLink from '@/ui/FigureLink.vue'
import FoldedSection from '@/ui/FoldedSection.vue'
import FindingList from '@/ui/FindingList.vue'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import { computed } from 'vue'
import AssumptionList from './AssumptionList.vue'
import ClassTable from './ClassTable.vue'
import DayNeeds from './DayNeeds.vue'
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
const rule = computed(() =>
  reference.data?.rules.find((r) => r.key === plan.document.plan.house_rule),
)
const ruleName = computed(() => rule.value?.name)
const bases = computed(() => [
  {
    value: null,
    name: phrase('need.need_stop.house_rule', { life_basis: rule.value?.life_basis ?? '' }),
  },
  ...(reference.data?.life_bases ?? []).map((b) => ({ value: b.key, name: b.name })),
])
</script>

<template>
  <h1 class="text-3xl">{{ phrase('need.need_stop.need') }}</h1>
  <p class="mt-1 max-w-3xl text-pretty text-soft">
    {{ phrase('need.need_stop.usable_energy_need_between') }}
  </p>
  <p class="mt-3 text-xl leading-relaxed" data-main>
    <FigureLink :figure="need.day" :name="phrase('need.need_stop.day')" />
    {{ phrase('need.need_stop.a_day') }}
    <FigureLink :figure="need.nights" :name="phrase('need.need_stop.nights')" /> × (1 +
    <FigureLink :figure="need.reserve" :name="phrase('need.need_stop.reserve')" />
    {{ phrase('need.need_stop.reserve_end') }}
    <FigureLink
      :figure="need.energy"
      :name="phrase('need.need_stop.need')"
      class="text-3xl font-semibold"
    />
    {{ phrase('need.need_stop.usable') }}
  </p>
  <p v-if="plan.rig!.day.types.length > 1" class="mt-1 text-soft">
    {{ phrase('need.need_stop.based_kind_day_sizes', { day_name: need.day_name }) }}
  </p>
  <FindingList :findings="findings" class="mt-3" />
  <section class="sheet mt-4 p-5" data-picture>
    <h2 class="text-xl">{{ phrase('need.need_stop.day_rated_capacity') }}</h2>
    <p class="mb-4 max-w-3xl text-pretty text-soft">
      {{ phrase('need.need_stop.line_adds_requirement_last') }}
    </p>
    <WaterfallPair />
  </section>
  <div class="mt-4 grid gap-x-4 gap-y-3 sm:grid-cols-2 lg:grid-cols-[1fr_1fr_1fr_1.6fr]">
    <div
      v-for="a in SLIDERS"
      :key="a.name"
      :class="a.name === 'nights' && plan.document.plan.overnight ? 'opacity-60' : ''"
    >
      <AssumptionField :name="a.name" />
      <AssumptionSlider v-bind="a" />
      <p v-if="a.name === 'nights' && plan.document.plan.overnight" class="text-sm text-soft">
        {{ phrase('need.need_stop.used_when_plan_overnight') }}
      </p>
    </div>
    <div>
      <PlanCheck
        path="/plan/overnight"
        :label="phrase('need.need_stop.plan_overnight_last_charge')"
        :value="plan.document.plan.overnight"
        :called="phrase('need.need_stop.overnight')"
        class="mt-4"
      />
      <p class="pl-6.5 text-sm text-soft">
        {{ phrase('need.need_stop.needs') }}
        <FigureLink
          :figure="need.overnight"
          :name="phrase('need.need_stop.overnight_title')"
          class="text-ink"
        />{{ phrase('need.need_stop.charging', { overnight_text: need.overnight_text }) }}
      </p>
    </div>
  </div>
  <p class="mt-3 mb-2">
    <RouterLink
      class="text-sea underline underline-offset-4"
      :to="{
        name: 'rig',
        params: { id: plan.rig!.id, stop: 'trial' },
        query: { part: 'how-long' },
      }"
      >{{ phrase('need.need_stop.how_long_link') }}</RouterLink
    >
  </p>
  <div class="border-b border-line">
    <FoldedSection
      name="rules"
      :title="phrase('need.need_stop.how_cautious_should_we')"
      :says="ruleName"
    >
      <HouseRules />
      <PlanChoice
        class="mt-4 max-w-sm"
        path="/plan/life_basis"
        :label="phrase('need.need_stop.life_plan')"
        :value="plan.document.plan.life_basis"
        :options="bases"
      />
    </FoldedSection>
    <FoldedSection name="classes" :title="phrase('need.need_stop.classes_side_side')">
      <section class="sheet px-5 py-3">
        <ClassTable />
      </section>
    </FoldedSection>
    <FoldedSection v-if="need.second" name="second" :title="phrase('need.need_stop.second_bank')">
      <section class="sheet p-5">
        <p>
          <FigureLink
            :figure="need.second.energy"
            :name="phrase('need.need_stop.its_need')"
            class="text-xl font-semibold"
          />
          {{ phrase('need.need_stop.usable_own_rated_capacity') }}
        </p>
        <p class="mt-2 flex flex-wrap gap-x-6 gap-y-2">
          <span
            v-for="(l, i) in need.second.labels"
            :key="i"
            class="inline-flex items-center gap-2"
          >
            <ChemistryMark :battery-class="need.classes[i]!.battery_class" />
            <FigureLink
              :figure="l"
              :name="phrase('need.need_stop.rated_capacity')"
              class="font-semibold"
            />
          </span>
        </p>
      </section>
    </FoldedSection>
    <FoldedSection name="days" :title="phrase('need.need_stop.kind_day')">
      <section class="sheet px-5 py-3">
        <DayNeeds />
        <p class="mt-2 text-sm text-soft">
          {{ phrase('need.need_stop.rated_capacity_needed_ah') }}
        </p>
      </section>
    </FoldedSection>
    <FoldedSection name="assumptions" :title="phrase('need.need_stop.assumptions')">
      <AssumptionList />
    </FoldedSection>
  </div>
</template>
