<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { NotebookPen } from '@lucide/vue'

/** Something that the log found, where the plan says otherwise, and the way to it. */
defineProps<{ says: string; part: string }>()
const plan = usePlan()
</script>

<template>
  <p class="flex gap-2 leading-snug text-caution" data-log-found>
    <NotebookPen :size="18" class="mt-0.5 shrink-0" aria-hidden="true" />
    <span>
      {{ says }}
      <RouterLink
        class="text-sea underline underline-offset-4"
        :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'log' }, query: { part } }"
        >{{ phrase('shared.log_found.open') }}</RouterLink
      >
    </span>
  </p>
</template>
