<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import type { OpenTopics } from './useOpenTopics'

/** Whether the verdict could still turn, and the question that matters most. */
const props = defineProps<{
  topics: OpenTopics
  /** Something is to be found out beside what is not stated. */
  more?: boolean
}>()
const { provisional, asks, open } = props.topics
</script>

<template>
  <p v-if="provisional || more" class="text-caution" data-provisional>
    <b class="mr-1 rounded border border-caution px-1.5 py-0.5 text-sm font-semibold">{{
      phrase('questions.assumed.provisional')
    }}</b>
    {{
      asks
        ? phrase('questions.assumed.asks', { asks: asks.asks })
        : phrase('questions.assumed.provisional_says')
    }}
  </p>
  <p v-else-if="open.length" class="text-soft" data-firm>
    {{ phrase('questions.assumed.firm') }}
  </p>
</template>
