<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { useRoute } from 'vue-router'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'
import { useTurns } from './useDoubt'

/** The runner-up, and at which nights a year the verdict is another. */
const plan = usePlan()
const { answer, asking } = useTurns()
const route = useRoute()
const verdict = computed(() => plan.rig!.compare.verdict)
</script>

<template>
  <section data-turns :aria-busy="asking">
    <h2 class="text-xl">When it would be another</h2>
    <p v-if="verdict.runner_text" class="mt-1">
      The runner-up is <b class="font-semibold">{{ verdict.runner_text }}</b>.
    </p>
    <template v-if="answer">
      <p v-if="!answer.verdict_changes.length" class="mt-1 text-soft">
        At no number of off-grid nights a year does the verdict change.
      </p>
      <ul v-else class="mt-2 space-y-1.5">
        <li class="grid gap-x-3 leading-snug sm:grid-cols-[9.5rem_1fr]">
          <span>Below that</span>
          <SentenceText :tokens="answer.verdict_changes[0]!.before" />
        </li>
        <li
          v-for="t in answer.verdict_changes"
          :key="t.nights.key"
          class="grid gap-x-3 leading-snug sm:grid-cols-[9.5rem_1fr]"
          data-turn
        >
          <span
            >From <FigureLink :figure="t.nights" class="font-semibold" data-turn-nights /> on</span
          >
          <SentenceText :tokens="t.after" />
        </li>
      </ul>
      <p v-if="route.query.part !== 'doubt'" class="mt-2">
        <RouterLink
          class="text-sea underline underline-offset-4"
          :to="{
            name: 'rig',
            params: { id: plan.rig!.id, stop: 'compare' },
            query: { part: 'doubt' },
          }"
          >Years, prices, life, extras, depth and temperature at which it flips</RouterLink
        >
      </p>
    </template>
    <p v-else class="mt-1 text-soft">Trying other numbers of nights …</p>
  </section>
</template>
