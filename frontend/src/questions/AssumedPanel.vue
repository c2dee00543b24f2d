<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { ClipboardCheck } from '@lucide/vue'
import { computed, ref } from 'vue'
import AssumedTopics from './AssumedTopics.vue'

/** What we assumed, folded, on every stop; what it could change is worked out when it is opened. */
const plan = usePlan()
const open = ref(false)
const counts = computed(() => {
  const of = (status: string) => plan.rig!.topics.filter((t) => t.status === status).length
  return { assumed: of('assumed'), missing: of('missing'), stated: of('stated') }
})
</script>

<template>
  <details
    class="sheet mt-6 px-5 py-1 print:hidden"
    data-assumed-panel
    @toggle="open = ($event.target as HTMLDetailsElement).open"
  >
    <summary class="discloses flex min-h-11 flex-wrap gap-x-3">
      <ClipboardCheck :size="18" aria-hidden="true" />
      <span class="font-semibold text-ink">{{ phrase('questions.assumed.title') }}</span>
      <span>{{
        phrase('questions.assumed.counts', {
          assumed: counts.assumed,
          missing: counts.missing,
          stated: counts.stated,
        })
      }}</span>
    </summary>
    <AssumedTopics v-if="open" class="mt-2 pb-3" />
  </details>
</template>
