<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import PartTabs from '@/ui/PartTabs.vue'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import ChoicePart from './ChoicePart.vue'
import ProgressLine from './ProgressLine.vue'
import { useChangeover } from './useChangeover'

const { plan, view } = useChangeover()
const route = useRoute()
const PARTS = [
  { key: 'before', name: phrase('changeover.stop.before'), screen: ChoicePart },
  {
    key: 'shopping',
    name: phrase('changeover.stop.shopping'),
    screen: defineAsyncComponent(() => import('./ShoppingPart.vue')),
  },
  {
    key: 'work',
    name: phrase('changeover.stop.work'),
    screen: defineAsyncComponent(() => import('./WorkPart.vue')),
  },
  {
    key: 'settings',
    name: phrase('changeover.stop.settings'),
    screen: defineAsyncComponent(() => import('./SettingsPart.vue')),
  },
  {
    key: 'proof',
    name: phrase('changeover.stop.proof'),
    screen: defineAsyncComponent(() => import('./ProofPart.vue')),
  },
  {
    key: 'papers',
    name: phrase('changeover.stop.papers'),
    screen: defineAsyncComponent(() => import('./PapersPart.vue')),
  },
]
/** Where the work is when the page is opened; a step ticked meanwhile turns no page. */
const opensAt = ref(view.value.opens_at)
watch(
  () => plan.rig?.id,
  () => {
    if (plan.rig?.changeover) opensAt.value = view.value.opens_at
  },
)
const part = computed(
  () => PARTS.find((p) => p.key === (route.query.part ?? opensAt.value)) ?? PARTS[0]!,
)
</script>

<template>
  <h1 class="text-3xl">{{ phrase('changeover.stop.changeover') }}</h1>
  <template v-if="view.chosen">
    <ProgressLine />
    <PartTabs
      stop="changeover"
      :parts="PARTS"
      :chosen="part.key"
      named
      :name="phrase('changeover.stop.parts')"
    />
    <component :is="part.screen" />
  </template>
  <ChoicePart v-else />
</template>
