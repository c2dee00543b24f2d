<script setup lang="ts">
import { phrase } from '@/phrases/banks'
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
  { key: 'cards', name: phrase('banks.banks_stop.banks_compare'), screen: BankCards },
  {
    key: 'find',
    name: phrase('banks.banks_stop.find_banks'),
    screen: defineAsyncComponent(() => import('@/stops/banks/find/FindBanks.vue')),
  },
  {
    key: 'locker',
    name: phrase('banks.banks_stop.locker'),
    screen: defineAsyncComponent(() => import('@/stops/banks/locker/LockerPart.vue')),
  },
  {
    key: 'wiring',
    name: phrase('banks.banks_stop.wiring'),
    screen: defineAsyncComponent(() => import('@/stops/banks/wiring/WiringPart.vue')),
  },
  {
    key: 'volts',
    name: phrase('banks.banks_stop.voltages'),
    screen: defineAsyncComponent(() => import('@/stops/banks/volts/VoltsPart.vue')),
  },
  {
    key: 'batteries',
    name: phrase('banks.banks_stop.batteries'),
    screen: defineAsyncComponent(() => import('@/stops/banks/catalogue/BatteriesPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'banks' && !f.subject))
</script>

<template>
  <div class="flex flex-wrap items-baseline justify-between gap-x-6">
    <h1 class="text-3xl">{{ phrase('banks.banks_stop.banks') }}</h1>
    <p v-if="plan.rig!.need.energy.value" class="text-lg" data-main>
      {{ phrase('banks.banks_stop.should_supply') }}
      <FigureLink
        :figure="plan.rig!.need.energy"
        :name="phrase('banks.banks_stop.need')"
        class="font-semibold"
      />
      {{ phrase('banks.banks_stop.usable') }}
    </p>
  </div>
  <p v-if="!plan.rig!.need.energy.value" class="mt-2 text-xl">
    {{ phrase('banks.banks_stop.day_loads_yet_smallest') }}
    <RouterLink
      class="text-sea underline underline-offset-4"
      :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }"
      >{{ phrase('banks.banks_stop.list_loads') }}</RouterLink
    >
  </p>
  <PartTabs
    stop="banks"
    :parts="PARTS"
    :chosen="part.key"
    :name="phrase('banks.banks_stop.parts_banks')"
  />
  <FindingList :findings="findings" class="mb-4" />
  <component :is="part.screen" />
</template>
