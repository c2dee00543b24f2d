<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { useRoute } from 'vue-router'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'
import NightsBand from './NightsBand.vue'
import { useTurns } from './useDoubt'

/** The runner-up, and at which nights a year the verdict is another. */
defineProps<{ bare?: boolean }>()
const plan = usePlan()
const { answer, asking } = useTurns()
const route = useRoute()
const verdict = computed(() => plan.rig!.compare.verdict)
</script>

<template>
  <section data-turns :aria-busy="asking">
    <h2 v-if="!bare" class="text-xl">
      {{ phrase('compare.what_flips.when_verdict_changes') }}
    </h2>
    <div v-if="answer" class="grid gap-x-10 lg:grid-cols-2">
      <NightsBand
        :title="phrase('compare.nights_band.nights')"
        :changes="answer.verdict_changes"
        :here="answer.nights"
        :text="plan.rig!.fields['/rig/off_grid_nights'] ?? ''"
        :most="365"
        :buys="answer.buys"
      />
      <NightsBand
        :title="phrase('compare.nights_band.years')"
        :changes="answer.years_changes"
        :here="answer.years"
        :text="plan.rig!.fields['/rig/years_kept'] ?? ''"
        :most="40"
        :buys="answer.buys"
      />
    </div>
    <p v-if="verdict.runner_text" class="mt-1">
      {{ phrase('compare.what_flips.runner_up') }}
      <b class="font-semibold">{{ verdict.runner_text }}</b>.
    </p>
    <template v-if="answer">
      <p v-if="!answer.verdict_changes.length" class="mt-1 text-soft">
        {{ phrase('compare.what_flips.verdict_same_number_off') }}
      </p>
      <ul v-else class="mt-2 space-y-1.5">
        <li class="grid gap-x-3 leading-snug sm:grid-cols-[9.5rem_1fr]">
          <span>{{ phrase('compare.what_flips.fewer_nights') }}</span>
          <SentenceText :tokens="answer.verdict_changes[0]!.before" />
        </li>
        <li
          v-for="t in answer.verdict_changes"
          :key="t.at.key"
          class="grid gap-x-3 leading-snug sm:grid-cols-[9.5rem_1fr]"
          data-turn
        >
          <span
            >{{ phrase('compare.what_flips.from') }}
            <FigureLink :figure="t.at" class="font-semibold" data-turn-nights />
            {{ phrase('compare.what_flips.or_more') }}</span
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
          >{{ phrase('compare.what_flips.years_prices_life_extras') }}</RouterLink
        >
      </p>
    </template>
    <p v-else class="mt-1 text-soft">
      {{ phrase('compare.what_flips.trying_other_numbers_nights') }}
    </p>
  </section>
</template>
