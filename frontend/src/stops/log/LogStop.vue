<script setup lang="ts">
import { phrase } from '@/phrases/log'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import EntriesPart from './EntriesPart.vue'

/** The log: what was entered by hand, what a monitor logged, how healthy the bank is by both, and
 * whether the verdict still holds. */
const route = useRoute()
const PARTS = [
  { key: 'entries', name: phrase('log.stop.entries'), screen: EntriesPart },
  {
    key: 'monitor',
    name: phrase('log.stop.monitor'),
    screen: defineAsyncComponent(() => import('./ReadingsPart.vue')),
  },
  {
    key: 'health',
    name: phrase('log.stop.health'),
    screen: defineAsyncComponent(() => import('./HealthPart.vue')),
  },
  {
    key: 'so-far',
    name: phrase('log.stop.so_far'),
    screen: defineAsyncComponent(() => import('./SoFarPart.vue')),
  },
  {
    key: 'review',
    name: phrase('log.stop.review'),
    screen: defineAsyncComponent(() => import('./ReviewPart.vue')),
  },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
</script>

<template>
  <h1 class="text-3xl">{{ phrase('log.stop.title') }}</h1>
  <PartTabs stop="log" :parts="PARTS" :chosen="part.key" :name="phrase('log.stop.parts')" />
  <component :is="part.screen" />
</template>
