<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import VerdictPart from './VerdictPart.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'verdict', name: 'Verdict', screen: VerdictPart },
  {
    key: 'table',
    name: 'Side by side',
    screen: defineAsyncComponent(() => import('./TablePart.vue')),
  },
  { key: 'money', name: 'Money', screen: defineAsyncComponent(() => import('./MoneyPart.vue')) },
  {
    key: 'doubt',
    name: 'What would change it',
    screen: defineAsyncComponent(() => import('./DoubtPart.vue')),
  },
  {
    key: 'when',
    name: 'When and how much',
    screen: defineAsyncComponent(() => import('./WhenPart.vue')),
  },
  {
    key: 'loads',
    name: 'Each load',
    screen: defineAsyncComponent(() => import('./LoadsPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const ready = computed(
  () => plan.rig!.compare.compared_banks.length > 0 && plan.rig!.day.total.value,
)
</script>

<template>
  <h1 class="text-3xl">The verdict</h1>
  <PartTabs stop="compare" :parts="PARTS" :chosen="part.key" name="Parts of Compare" />
  <component :is="part.screen" v-if="ready || part.key === 'verdict'" />
  <section v-if="!ready" class="sheet mx-auto mt-8 max-w-xl p-8 text-center">
    <h2 class="text-xl">Nothing to compare yet</h2>
    <p class="mt-2 text-soft">It takes a day with loads, and banks that can be built.</p>
    <p class="mt-4 flex justify-center gap-2">
      <RouterLink class="btn" :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }"
        >List the loads</RouterLink
      >
      <RouterLink class="btn" :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'banks' } }"
        >Choose banks</RouterLink
      >
    </p>
  </section>
</template>
