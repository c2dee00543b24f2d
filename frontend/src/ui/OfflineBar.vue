<script setup lang="ts">
import { offline } from '@/api/offline'
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'

/** On every page while the program does not answer: what is shown is the last state, and edits wait. */
const plan = usePlan()
</script>

<template>
  <p
    v-if="offline && !plan.unsent"
    class="border-b-2 border-caution bg-wash px-4 py-2 text-center leading-snug print:hidden"
    role="status"
    data-offline
  >
    {{ phrase('shared.offline_bar.last_state') }}
  </p>
</template>
