<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import { usePlan } from '@/stores/plan'
import FindingList from '@/ui/FindingList.vue'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import SourcesPart from './SourcesPart.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'sources', name: phrase('charging.charging_stop.sources'), screen: SourcesPart },
  {
    key: 'audit',
    name: phrase('charging.charging_stop.my_chargers_suitable'),
    screen: defineAsyncComponent(() => import('./AuditPart.vue')),
  },
  {
    key: 'curves',
    name: phrase('charging.charging_stop.charging_time'),
    screen: defineAsyncComponent(() => import('./CurvesPart.vue')),
  },
  {
    key: 'needed',
    name: phrase('charging.charging_stop.how_much_needed'),
    screen: defineAsyncComponent(() => import('./NeededPart.vue')),
  },
  {
    key: 'measured',
    name: phrase('charging.charging_stop.measured'),
    screen: defineAsyncComponent(() => import('./MeasuredPart.vue')),
  },
  {
    key: 'settings',
    name: phrase('charging.charging_stop.settings'),
    screen: defineAsyncComponent(() => import('./SettingsPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const findings = computed(() =>
  plan.rig!.findings.filter((f) => f.stop === 'charging' && !f.subject),
)
</script>

<template>
  <h1 class="text-3xl">{{ phrase('charging.charging_stop.charging') }}</h1>
  <PartTabs
    stop="charging"
    :parts="PARTS"
    :chosen="part.key"
    :name="phrase('charging.charging_stop.parts_charging')"
  />
  <FindingList :findings="findings" class="mb-4" />
  <component :is="part.screen" />
</template>
