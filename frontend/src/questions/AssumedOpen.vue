<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import FoldedSection from '@/ui/FoldedSection.vue'
import { computed } from 'vue'
import AssumedList from './AssumedList.vue'
import type { OpenTopics } from './useOpenTopics'

/** What we assumed, under the verdict: in the open while the verdict could still turn. */
const props = defineProps<{ topics: OpenTopics }>()
const missing = computed(() => props.topics.open.value.filter((t) => t.status === 'missing').length)
const assumed = computed(() => props.topics.open.value.length - missing.value)
</script>

<template>
  <FoldedSection
    name="assumed"
    class="border-b"
    :title="phrase('questions.assumed.title')"
    :says="
      topics.open.value.length
        ? phrase('questions.assumed.open_counts', {
            assumed: assumed,
            missing: missing,
          })
        : phrase('questions.assumed.all_stated')
    "
    :open="topics.provisional.value"
    data-assumed-open
  >
    <p class="mb-2 text-soft">{{ phrase('questions.assumed.lead') }}</p>
    <AssumedList :topics="topics" :most="4" />
  </FoldedSection>
</template>
