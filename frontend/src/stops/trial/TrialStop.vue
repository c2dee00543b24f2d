<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { usePlan } from '@/stores/plan'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import RunPart from './RunPart.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'run', name: phrase('trial.trial_stop.trial_short'), screen: RunPart },
  {
    key: 'how-long',
    name: phrase('trial.trial_stop.how_long'),
    screen: defineAsyncComponent(() => import('./HowLongPart.vue')),
  },
  {
    key: 'year',
    name: phrase('trial.trial_stop.year'),
    screen: defineAsyncComponent(() => import('./YearPart.vue')),
  },
  {
    key: 'laid-up',
    name: phrase('trial.trial_stop.laid_up'),
    screen: defineAsyncComponent(() => import('./LaidUpPart.vue')),
  },
  {
    key: 'monitor',
    name: phrase('trial.trial_stop.monitor'),
    screen: defineAsyncComponent(() => import('./MonitorPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const empty = computed(() => !plan.rig!.day.total.value)
</script>

<template>
  <h1 class="text-3xl">{{ phrase('trial.trial_stop.trial') }}</h1>
  <PartTabs
    stop="trial"
    :parts="PARTS"
    :chosen="part.key"
    :name="phrase('trial.trial_stop.parts_trial')"
  />
  <p v-if="empty" class="mb-3 text-lg">
    {{ phrase('trial.trial_stop.day_loads_yet_nothing') }}
    <RouterLink
      class="text-sea underline underline-offset-4"
      :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }"
      >{{ phrase('trial.trial_stop.list_loads') }}</RouterLink
    >
  </p>
  <component :is="part.screen" />
</template>
