<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { computed, ref } from 'vue'
import TopicRow from './TopicRow.vue'
import type { OpenTopics } from './useOpenTopics'

/** What the answer rests on: what is not stated first, by how much it could move the answer. */
const props = defineProps<{ topics: OpenTopics; most?: number }>()
const plan = usePlan()
const { ordered, effects, asks, answer, asking } = props.topics
const all = ref(false)
/** Those that could turn the verdict, and a few more; the rest when asked for. */
const shown = computed(() =>
  all.value || !props.most ? ordered.value : ordered.value.slice(0, props.most),
)
const stated = computed(() => plan.rig!.topics.filter((t) => t.status === 'stated'))
</script>

<template>
  <div>
    <p v-if="asking && !answer" class="text-soft" role="status">
      {{ phrase('questions.assumed.checking') }}
    </p>
    <p v-if="!ordered.length">{{ phrase('questions.assumed.all_stated') }}</p>
    <ul v-else class="divide-y divide-line border-y border-line">
      <TopicRow
        v-for="t in shown"
        :key="t.key"
        :topic="t"
        :effect="effects.get(t.key)"
        :asked="asks?.key === t.key"
      />
    </ul>
    <button
      v-if="shown.length < ordered.length"
      type="button"
      class="btn btn-quiet mt-2"
      data-all-topics
      @click="all = true"
    >
      {{ phrase('questions.assumed.show_all', { count: ordered.length - shown.length }) }}
    </button>
    <details v-if="stated.length" class="mt-3" data-stated>
      <summary class="discloses">
        {{ phrase('questions.assumed.shown_stated', { count: stated.length }) }}
      </summary>
      <ul class="mt-1 divide-y divide-line border-y border-line">
        <TopicRow v-for="t in stated" :key="t.key" :topic="t" />
      </ul>
    </details>
  </div>
</template>
