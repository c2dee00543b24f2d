<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { QUESTIONS } from '@/questions/questions'
import { useAnswers } from '@/questions/useAnswers'
import { router } from '@/router'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import UnsentBar from '@/ui/UnsentBar.vue'
import { computed, ref, watch } from 'vue'
import StartFrame from './StartFrame.vue'

/** The guided start of a rig that is there: every answer is an edit of it, so it can be left at any time. */
const props = defineProps<{ id: number; question?: string }>()
const plan = usePlan()
const reference = useReference()
const { topicsOf, answer } = useAnswers()
const keys = computed(() => reference.data?.guide ?? Object.keys(QUESTIONS))
const key = computed(() => {
  const wanted = props.question || (plan.document?.guide as string | undefined)
  return wanted && keys.value.includes(wanted) ? wanted : keys.value[0]!
})
const place = computed(() => keys.value.indexOf(key.value))
const open = computed(() => topicsOf(key.value).filter((t) => t.status !== 'stated'))
const busy = ref(false)

const to = (question: string) => ({ name: 'start', params: { id: props.id }, query: { question } })

watch(
  () => props.id,
  async (id) => {
    await plan.toStop('rig')
    await plan.open(id)
    document.title = phrase('questions.start.title')
  },
  { immediate: true },
)

async function go(known: boolean) {
  if (busy.value || plan.filling) return
  busy.value = true
  const question = key.value
  const next = keys.value[place.value + 1]
  await answer(question, known, next ?? '')
  busy.value = false
  await router.push(next ? to(next) : { name: 'rig', params: { id: props.id, stop: 'compare' } })
}
</script>

<template>
  <div v-if="plan.missing" class="mx-auto max-w-lg px-4 py-24 text-center">
    <h1 class="text-2xl">{{ plan.why || phrase('questions.start.no_answer') }}</h1>
    <RouterLink to="/" class="btn btn-main mt-6">{{ phrase('questions.start.leave') }}</RouterLink>
  </div>
  <template v-else-if="plan.rig?.seasons && reference.data">
    <UnsentBar />
    <StartFrame
      :question="key"
      :to="to"
      :busy="busy || plan.filling > 0"
      @back="router.push(to(keys[place - 1]!))"
      @unknown="go(false)"
      @next="go(true)"
    >
      <component :is="QUESTIONS[key]!.screen" v-bind="QUESTIONS[key]!.with ?? {}" :key="key" />
      <template #assumes>
        <p v-if="open.length" class="mb-3 text-soft" data-assumes>
          {{ phrase('questions.start.assumes') }}
          <span v-for="(t, i) in open" :key="t.key"
            >{{ i ? '; ' : '' }}{{ t.name }}:
            <b class="font-semibold text-ink">{{ t.says }}</b></span
          >
        </p>
      </template>
    </StartFrame>
  </template>
</template>
