<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import SentenceText from '@/ui/SentenceText.vue'
import { CircleHelp } from '@lucide/vue'
import { send } from './packageEdits'

/** What must be known before the advised package is bought, and what is advised otherwise. */
defineProps<{ found: Schemas['PackagesView'] }>()
const plan = usePlan()
const to = (one: Schemas['ToFindOutView']) => ({
  name: 'rig',
  params: { id: plan.rig!.id, stop: one.stop },
  query: one.part ? { part: one.part } : {},
})
</script>

<template>
  <section v-if="found.find_out.length" class="mt-6" data-find-out>
    <h2 class="text-xl">{{ phrase('compare.verdict_part.find_out') }}</h2>
    <ul class="mt-2 divide-y divide-line border-y border-line">
      <li
        v-for="one in found.find_out"
        :key="one.key"
        class="flex flex-wrap items-start gap-x-4 gap-y-2 py-3"
        :data-improvement="one.key"
      >
        <div class="min-w-0 grow basis-64 leading-snug">
          <p class="font-semibold">
            <CircleHelp
              :size="16"
              class="mr-1.5 inline align-[-0.15em] text-caution"
              aria-hidden="true"
            />{{ one.says }}
          </p>
          <p><SentenceText :tokens="one.asks" /></p>
        </div>
        <p v-if="one.otherwise.length" class="min-w-0 grow basis-72 leading-snug text-soft">
          {{ phrase('compare.verdict_part.otherwise') }}
          <SentenceText :tokens="one.otherwise" plain class="text-ink" />
        </p>
        <div class="flex gap-2">
          <RouterLink v-if="one.stop" class="btn" :to="to(one)">{{
            phrase('compare.verdict_part.enter_it')
          }}</RouterLink>
          <button
            type="button"
            class="btn btn-quiet"
            data-not-possible
            @click="send(phrase('compare.improvement_list.label_refuse'), one.refuse)"
          >
            {{ phrase('compare.improvement_list.refuse') }}
          </button>
        </div>
      </li>
    </ul>
  </section>
</template>
