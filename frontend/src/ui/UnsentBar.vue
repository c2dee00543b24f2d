<script setup lang="ts">
import { usePlan } from '@/stores/plan'

/** What is not stored, while nobody answers. */
const plan = usePlan()
</script>

<template>
  <div
    v-if="plan.unsent"
    class="border-b-2 border-care bg-wash print:hidden"
    role="status"
    data-unsent
  >
    <div class="mx-auto flex max-w-[1240px] flex-wrap items-center gap-x-4 gap-y-2 px-4 py-2">
      <p class="min-w-0 grow leading-snug">
        <b
          >{{ plan.unsent === 1 ? '1 change is' : `${plan.unsent} changes are` }} not stored yet.</b
        >
        {{
          plan.troubled ||
          'The program does not answer. What you changed is kept in this browser, and stored by itself when the program answers again.'
        }}
      </p>
      <button type="button" class="btn" @click="plan.sendAgain()">Try now</button>
    </div>
  </div>
</template>
