<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import RunPart from './RunPart.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'run', name: 'Trial run', screen: RunPart },
  {
    key: 'how-long',
    name: 'How long',
    screen: defineAsyncComponent(() => import('./HowLongPart.vue')),
  },
  { key: 'year', name: 'The year', screen: defineAsyncComponent(() => import('./YearPart.vue')) },
  {
    key: 'laid-up',
    name: 'Laid up',
    screen: defineAsyncComponent(() => import('./LaidUpPart.vue')),
  },
  {
    key: 'monitor',
    name: 'Monitor',
    screen: defineAsyncComponent(() => import('./MonitorPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const empty = computed(() => !plan.rig!.day.total.value)
</script>

<template>
  <h1 class="text-3xl">The trial run</h1>
  <PartTabs stop="trial" :parts="PARTS" :chosen="part.key" name="Parts of Trial" />
  <p v-if="empty" class="mb-3 text-lg">
    The day has no loads yet, so nothing is drawn.
    <RouterLink
      class="text-sea underline underline-offset-4"
      :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }"
      >List the loads</RouterLink
    >
  </p>
  <component :is="part.screen" />
</template>
