<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import AssumedList from './AssumedList.vue'
import { useOpenTopics } from './useOpenTopics'

/** The list with what each could change. */
const topics = useOpenTopics()
</script>

<template>
  <div>
    <p class="mb-3 text-soft">{{ phrase('questions.assumed.lead') }}</p>
    <AssumedList :topics="topics" />
  </div>
</template>
