<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import FindingList from '@/ui/FindingList.vue'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import SourcesPart from './SourcesPart.vue'

const plan = usePlan()
const route = useRoute()
const PARTS = [
  { key: 'sources', name: 'Sources', screen: SourcesPart },
  {
    key: 'audit',
    name: 'Will they do?',
    screen: defineAsyncComponent(() => import('./AuditPart.vue')),
  },
  {
    key: 'curves',
    name: 'How fast',
    screen: defineAsyncComponent(() => import('./CurvesPart.vue')),
  },
  {
    key: 'needed',
    name: 'How much',
    screen: defineAsyncComponent(() => import('./NeededPart.vue')),
  },
  {
    key: 'measured',
    name: 'Measured',
    screen: defineAsyncComponent(() => import('./MeasuredPart.vue')),
  },
  {
    key: 'settings',
    name: 'Settings',
    screen: defineAsyncComponent(() => import('./SettingsPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const findings = computed(() =>
  plan.rig!.findings.filter((f) => f.stop === 'charging' && !f.subject),
)
</script>

<template>
  <h1 class="text-3xl">Putting it back</h1>
  <PartTabs stop="charging" :parts="PARTS" :chosen="part.key" name="Parts of Charging" />
  <FindingList :findings="findings" class="mb-4" />
  <component :is="part.screen" />
</template>
