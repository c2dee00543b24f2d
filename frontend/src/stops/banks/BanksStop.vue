<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import BankCards from '@/stops/banks/cards/BankCards.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'cards', name: 'Candidates', screen: BankCards },
  {
    key: 'find',
    name: 'Find banks',
    screen: defineAsyncComponent(() => import('@/stops/banks/find/FindBanks.vue')),
  },
  {
    key: 'locker',
    name: 'Locker',
    screen: defineAsyncComponent(() => import('@/stops/banks/locker/LockerPart.vue')),
  },
  {
    key: 'wiring',
    name: 'Wiring',
    screen: defineAsyncComponent(() => import('@/stops/banks/wiring/WiringPart.vue')),
  },
  {
    key: 'volts',
    name: 'Volts',
    screen: defineAsyncComponent(() => import('@/stops/banks/volts/VoltsPart.vue')),
  },
  {
    key: 'batteries',
    name: 'Batteries',
    screen: defineAsyncComponent(() => import('@/stops/banks/catalogue/BatteriesPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'banks' && !f.subject))
</script>

<template>
  <div class="flex flex-wrap items-baseline justify-between gap-x-6">
    <h1 class="text-3xl">The banks</h1>
    <p v-if="plan.rig!.need.energy.value" class="text-lg" data-main>
      Each should give
      <FigureLink :figure="plan.rig!.need.energy" name="The need" class="font-semibold" /> usable.
    </p>
  </div>
  <p v-if="!plan.rig!.need.energy.value" class="mt-2 text-xl">
    The day has no loads yet, so these are the smallest of their class.
    <RouterLink
      class="text-sea underline underline-offset-4"
      :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }"
      >List the loads</RouterLink
    >
  </p>
  <PartTabs stop="banks" :parts="PARTS" :chosen="part.key" name="Parts of Banks" />
  <FindingList :findings="findings" class="mb-4" />
  <component :is="part.screen" />
</template>
