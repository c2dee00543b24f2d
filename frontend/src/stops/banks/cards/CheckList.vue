<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { FlaskConical } from '@lucide/vue'
import VerdictMark from './VerdictMark.vue'

defineProps<{ checks: Schemas['CheckView'][]; plain?: boolean }>()
const plan = usePlan()

/** Tries a remedy beside the plan. */
async function attempt(name: string, remedy: Schemas['RemedyView']) {
  if (!plan.rig?.what_if) await plan.whatIf()
  await plan.edit(`${name}: ${remedy.says.split(/[:,;(]/)[0]}`, ...remedy.operations)
}
</script>

<template>
  <ul class="divide-y divide-line">
    <li
      v-for="c in checks"
      :key="c.code"
      class="flex gap-2 py-2 leading-snug"
      :data-check="c.code"
      :data-verdict="c.verdict"
    >
      <VerdictMark :verdict="c.verdict" class="mt-0.5 shrink-0" />
      <div class="min-w-0 grow">
        <p class="flex flex-wrap items-baseline justify-between gap-x-3">
          <span class="font-semibold">{{ c.name }}</span>
          <span v-if="c.margin" class="text-sm whitespace-nowrap text-soft">
            {{ c.gap }}
            <template v-if="plain">{{ c.margin.text }}</template>
            <FigureLink
              v-else
              :figure="c.margin"
              :name="phrase('banks.check_list.margin', { name: c.name })"
            />
          </span>
        </p>
        <p><SentenceText :tokens="c.says" :plain="plain" /></p>
        <p v-if="c.remedy" class="text-soft">{{ c.remedy }}</p>
        <ul v-if="c.remedies.length" class="mt-2 space-y-2">
          <li
            v-for="r in c.remedies"
            :key="r.key"
            class="flex items-start gap-2 rounded-md bg-well p-2"
            :data-remedy="r.key"
          >
            <p class="min-w-0 grow">
              {{ r.says }}
              <span v-if="r.price" class="whitespace-nowrap"
                ><b v-if="plain">{{ r.price.text }}</b
                ><FigureLink
                  v-else
                  :figure="r.price"
                  :name="phrase('banks.check_list.price')"
                  class="font-semibold"
              /></span>
            </p>
            <button
              v-if="r.operations.length && !plain"
              type="button"
              class="btn shrink-0 px-2.5"
              @click="attempt(c.name, r)"
            >
              <FlaskConical :size="15" aria-hidden="true" /> {{ phrase('banks.check_list.try') }}
            </button>
          </li>
        </ul>
      </div>
    </li>
  </ul>
</template>
