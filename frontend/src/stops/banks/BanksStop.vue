<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import { computed, defineAsyncComponent, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import BankCards from './BankCards.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'cards', name: 'Candidates', screen: BankCards },
  {
    key: 'find',
    name: 'Find banks',
    screen: defineAsyncComponent(() => import('./FindBanks.vue')),
  },
  { key: 'locker', name: 'Locker', screen: defineAsyncComponent(() => import('./LockerPart.vue')) },
  { key: 'wiring', name: 'Wiring', screen: defineAsyncComponent(() => import('./WiringPart.vue')) },
  { key: 'volts', name: 'Volts', screen: defineAsyncComponent(() => import('./VoltsPart.vue')) },
  {
    key: 'batteries',
    name: 'Batteries',
    screen: defineAsyncComponent(() => import('./BatteriesPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'banks' && !f.subject))
const to = (key: string) => ({
  name: 'rig',
  params: { id: plan.rig!.id, stop: 'banks' },
  query: key === 'cards' ? {} : { part: key },
})
const tabs = ref<HTMLElement | null>(null)

/** On a phone the part that is open may stand outside of the row. */
watch(
  part,
  async () => {
    await nextTick()
    const tab = tabs.value?.querySelector<HTMLElement>('[aria-current]')
    if (tabs.value && tab) tabs.value.scrollLeft = tab.offsetLeft - 40
  },
  { immediate: true, flush: 'post' },
)
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
  <nav
    ref="tabs"
    class="relative mt-3 mb-5 flex gap-1 overflow-x-auto border-b border-line"
    aria-label="Parts of Banks"
  >
    <RouterLink
      v-for="p in PARTS"
      :key="p.key"
      :to="to(p.key)"
      class="shrink-0 rounded-t-lg border-b-[3px] px-3 py-2 hover:bg-wash"
      :class="p.key === part.key ? 'border-sea font-semibold' : 'border-transparent text-soft'"
      :aria-current="p.key === part.key ? 'page' : undefined"
      :data-part="p.key"
      >{{ p.name }}</RouterLink
    >
  </nav>
  <FindingList :findings="findings" class="mb-4" />
  <component :is="part.screen" />
</template>
