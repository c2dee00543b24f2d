<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/questions'
import SentenceText from '@/ui/SentenceText.vue'
import { CircleDashed, CircleHelp } from '@lucide/vue'
import { computed, ref } from 'vue'
import { QUESTIONS } from './questions'
import { useAnswers } from './useAnswers'

/** One thing that the answer rests on, and its question in place. */
const props = defineProps<{
  topic: Schemas['TopicView']
  effect?: Schemas['OpenTopicView']
  asked?: boolean
}>()
const { answer, confirm } = useAnswers()
const asking = ref(false)
const question = computed(() => QUESTIONS[props.topic.question]!)
const chip = computed(
  () =>
    ({
      assumed: phrase('questions.assumed.assumed'),
      missing: phrase('questions.assumed.missing'),
      stated: phrase('questions.assumed.stated'),
    })[props.topic.status]!,
)

async function done() {
  await answer(props.topic.question, true)
  asking.value = false
}
</script>

<template>
  <li class="py-3" :data-topic="topic.key" :data-status="topic.status">
    <div class="flex flex-wrap items-start gap-x-4 gap-y-1">
      <div class="min-w-0 grow basis-64">
        <p class="leading-snug">
          <component
            :is="topic.status === 'missing' ? CircleHelp : CircleDashed"
            v-if="topic.status !== 'stated'"
            :size="16"
            class="mr-1.5 inline align-[-0.15em] text-caution"
            aria-hidden="true"
          />
          <span class="font-semibold">{{ topic.name }}</span>
          <span v-if="topic.status !== 'stated'" class="ml-2 text-sm text-caution">{{ chip }}</span>
        </p>
        <p class="leading-snug text-soft">{{ topic.says }}</p>
      </div>
      <div class="min-w-0 grow basis-72 leading-snug" data-effect>
        <p v-if="effect?.turns.length" class="text-caution">
          <b class="font-semibold">{{ phrase('questions.assumed.could_turn') }}</b>
          {{ ' ' }}<SentenceText :tokens="effect.turns" plain class="text-ink" />
        </p>
        <p v-else-if="effect?.swing" class="text-soft">
          {{ phrase('questions.assumed.moves', { swing: effect.swing }) }}
        </p>
        <p v-else-if="effect" class="text-soft">{{ phrase('questions.assumed.untried') }}</p>
      </div>
      <div class="flex gap-2">
        <button
          v-if="topic.status === 'assumed'"
          type="button"
          class="btn"
          :aria-label="
            phrase('questions.assumed.row', {
              name: topic.name,
              action: phrase('questions.assumed.right'),
            })
          "
          data-right
          @click="confirm(topic)"
        >
          {{ phrase('questions.assumed.right') }}
        </button>
        <button
          type="button"
          class="btn"
          :class="asked && !asking ? 'btn-main' : ''"
          :aria-expanded="asking"
          :aria-label="
            phrase('questions.assumed.row', {
              name: topic.name,
              action:
                topic.status === 'missing'
                  ? phrase('questions.assumed.answer')
                  : phrase('questions.assumed.change'),
            })
          "
          data-answer
          @click="asking = !asking"
        >
          {{
            asking
              ? phrase('questions.assumed.close')
              : topic.status === 'missing'
                ? phrase('questions.assumed.answer')
                : phrase('questions.assumed.change')
          }}
        </button>
      </div>
    </div>
    <section
      v-if="asking"
      class="mt-3 rounded-lg border border-line bg-well p-4"
      :aria-label="question.asks"
      data-asked
    >
      <h3 class="mb-3 text-lg">{{ question.asks }}</h3>
      <component :is="question.screen" v-bind="question.with ?? {}" />
      <button type="button" class="btn btn-main mt-4" data-done @click="done">
        {{ phrase('questions.assumed.done') }}
      </button>
    </section>
  </li>
</template>
