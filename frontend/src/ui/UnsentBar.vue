<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'

/** What is not stored, while nobody answers. */
const plan = usePlan()
</script>

<template>
  <div
    v-if="plan.unsent"
    class="border-b-2 border-caution bg-wash print:hidden"
    role="status"
    data-unsent
  >
    <div class="mx-auto flex max-w-[1240px] flex-wrap items-center gap-x-4 gap-y-2 px-4 py-2">
      <p class="min-w-0 grow leading-snug">
        <b>{{ phrase('shared.unsent_bar.not_saved', { count: plan.unsent }) }}</b>
        {{
          plan.troubled ||
          (plan.held
            ? phrase('shared.unsent_bar.held')
            : phrase('shared.unsent_bar.program_answer_changes_kept'))
        }}
      </p>
      <button type="button" class="btn" @click="plan.sendAgain()">
        {{ phrase('shared.unsent_bar.try_now') }}
      </button>
    </div>
  </div>
</template>
