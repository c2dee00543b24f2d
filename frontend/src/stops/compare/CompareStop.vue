<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import VerdictPart from './VerdictPart.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'verdict', name: phrase('compare.compare_stop.verdict_short'), screen: VerdictPart },
  {
    key: 'table',
    name: phrase('compare.compare_stop.side_side'),
    screen: defineAsyncComponent(() => import('./TablePart.vue')),
  },
  {
    key: 'money',
    name: phrase('compare.compare_stop.cost'),
    screen: defineAsyncComponent(() => import('./MoneyPart.vue')),
  },
  {
    key: 'doubt',
    name: phrase('compare.compare_stop.changes_verdict'),
    screen: defineAsyncComponent(() => import('./DoubtPart.vue')),
  },
  {
    key: 'when',
    name: phrase('compare.compare_stop.when_how_much'),
    screen: defineAsyncComponent(() => import('./WhenPart.vue')),
  },
  {
    key: 'loads',
    name: phrase('compare.compare_stop.load'),
    screen: defineAsyncComponent(() => import('./LoadsPart.vue')),
  },
  {
    key: 'beliefs',
    name: phrase('compare.compare_stop.true_or_not'),
    screen: defineAsyncComponent(() => import('./BeliefsPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const ready = computed(
  () => plan.rig!.compare.compared_banks.length > 0 && plan.rig!.day.total.value,
)
</script>

<template>
  <h1 class="text-3xl">{{ phrase('compare.compare_stop.verdict') }}</h1>
  <PartTabs
    stop="compare"
    :parts="PARTS"
    :chosen="part.key"
    :name="phrase('compare.compare_stop.parts_compare')"
  />
  <component :is="part.screen" v-if="ready || part.key === 'verdict'" />
  <section v-if="!ready" class="sheet mx-auto mt-8 max-w-xl p-8 text-center">
    <h2 class="text-xl">{{ phrase('compare.compare_stop.nothing_compare_yet') }}</h2>
    <p class="mt-2 text-soft">{{ phrase('compare.compare_stop.need_day_loads_banks') }}</p>
    <p class="mt-4 flex justify-center gap-2">
      <RouterLink class="btn" :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }">{{
        phrase('compare.compare_stop.list_loads')
      }}</RouterLink>
      <RouterLink class="btn" :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'banks' } }">{{
        phrase('compare.compare_stop.choose_banks')
      }}</RouterLink>
    </p>
  </section>
</template>
