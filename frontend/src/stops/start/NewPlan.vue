<script setup lang="ts">
import { problemsOf } from '@/api/client'
import { phrase } from '@/phrases/questions'
import QuestionWhat from '@/questions/QuestionWhat.vue'
import { router } from '@/router'
import { usePlan } from '@/stores/plan'
import { onMounted, ref } from 'vue'
import StartFrame from './StartFrame.vue'

/** The first question, before there is a rig: its answer makes one. */
const plan = usePlan()
const kind = ref('van')
const region = ref('')
const name = ref('')
const busy = ref(false)
const problem = ref('')

onMounted(() => (document.title = phrase('questions.start.title')))

async function make() {
  if (busy.value) return
  busy.value = true
  problem.value = ''
  const wanted = {
    name: name.value,
    kind: kind.value,
    region: region.value,
    // As such rigs are used most often, until the owner says otherwise.
    pattern: 'usual',
    sources: [],
    units: '',
    currency: '',
    guide: 'use',
  }
  const rig = { make: 'new' as const, rig: 0, label: name.value, body: JSON.stringify(wanted) }
  await plan.makeRig(rig, {
    made: ({ id }) =>
      void router.push({ name: 'start', params: { id }, query: { question: 'use' } }),
    refused: (found) => (problem.value = found[0]?.message ?? problemsOf(undefined)[0]!.message),
  })
  busy.value = false
}
</script>

<template>
  <StartFrame question="what" :busy="busy" @next="make" @unknown="make">
    <QuestionWhat
      :kind="kind"
      :region="region"
      :name="name"
      @kind="kind = $event"
      @region="region = $event"
      @name="name = $event"
    />
    <p v-if="problem" class="mt-4 text-blocking" role="alert">{{ problem }}</p>
  </StartFrame>
</template>
