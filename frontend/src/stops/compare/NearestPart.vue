<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { tryInPlan } from '@/stores/tryInPlan'
import { useUi } from '@/stores/ui'
import SentenceText from '@/ui/SentenceText.vue'

/** Where no bank will do: those that come nearest, what each asks, and a trial of it beside the plan. */
defineProps<{ nearest: Schemas['NearestView'][] }>()
const plan = usePlan()
const ui = useUi()

const tryIt = (one: Schemas['NearestView']) =>
  tryInPlan(
    plan,
    ui,
    phrase('compare.nearest_part.label'),
    one.try_it,
    phrase('compare.nearest_part.tried'),
  )
</script>

<template>
  <p class="mt-1 max-w-3xl text-soft">{{ phrase('compare.nearest_part.says') }}</p>
  <ul class="sheet mt-3 divide-y divide-line">
    <li
      v-for="(one, i) in nearest"
      :key="i"
      class="flex flex-wrap items-center gap-x-5 gap-y-2 p-4 sm:flex-nowrap"
      data-nearest
    >
      <p class="min-w-0 grow leading-snug"><SentenceText :tokens="one.says" /></p>
      <button
        v-if="one.try_it.length"
        type="button"
        class="btn shrink-0"
        data-try
        @click="tryIt(one)"
      >
        {{ phrase('compare.nearest_part.try') }}
      </button>
      <RouterLink
        v-else
        class="btn shrink-0"
        :to="{ name: 'rig', params: { id: plan.rig!.id, stop: one.stop } }"
      >
        {{ phrase('compare.nearest_part.change') }}
      </RouterLink>
    </li>
  </ul>
</template>
