<script setup lang="ts">
import { api, type CandidateView, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import CheckList from './CheckList.vue'
import { useAsked } from '@/stores/useAsked'

/** What passes, or is only to be known: asked for when somebody looks. */
const props = defineProps<{ candidate: CandidateView }>()
const plan = usePlan()
const ORDER = ['note', 'unknown', 'ok']
const { answer } = useAsked<Schemas['ChecksView']>(
  () => props.candidate.id,
  (signal) =>
    api.GET('/api/rigs/{rig_id}/checks', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { candidate: props.candidate.id } },
    }),
)
const rest = computed(() =>
  (answer.value?.checks ?? [])
    .filter((c) => ORDER.includes(c.verdict))
    .sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict)),
)
</script>

<template>
  <CheckList :checks="rest" />
</template>
