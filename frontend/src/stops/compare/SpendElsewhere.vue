<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'

/** Where the money is better spent than on the battery; nothing where it is not. */
const plan = usePlan()
const { answer } = useAsked<Schemas['LoadCostsView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/compare/loads', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const advice = computed(() => answer.value?.loads.filter((l) => l.better && l.says) ?? [])
</script>

<template>
  <ul v-if="advice.length" class="mt-3 max-w-3xl space-y-1 text-lg" data-advice>
    <li v-for="l in advice" :key="l.id">
      <SentenceText :tokens="l.says!" />
      <RouterLink
        class="ml-1 text-base text-soft underline underline-offset-4"
        :to="{
          name: 'rig',
          params: { id: plan.rig!.id, stop: 'compare' },
          query: { part: 'loads' },
        }"
        >{{ phrase('compare.spend_elsewhere.load') }}</RouterLink
      >
    </li>
  </ul>
</template>
