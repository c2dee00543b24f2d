<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { useUi } from '@/stores/ui'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check, Printer } from '@lucide/vue'
import { computed } from 'vue'
import { tryInPlan } from '@/stores/tryInPlan'

/** Once a season: whether the bank can wait, whether the verdict is the same, and what is to be done. */
const plan = usePlan()
const ui = useUi()
const { answer } = useAsked<Schemas['ReviewView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/log/review', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const paper = computed(() => `/api/rigs/${plan.rig!.id}/log/review/paper`)
const MARKS: Record<string, string> = {
  wait: '',
  small: 'note',
  charge: 'caution',
  prepare: 'caution',
  over: 'caution',
  danger: 'blocking',
  unknown: 'note',
}
const attempt = () =>
  tryInPlan(plan, ui, phrase('log.review.try'), answer.value!.operations, phrase('log.use.tried'))
</script>

<template>
  <p class="max-w-3xl text-pretty text-soft">{{ phrase('log.review.lead') }}</p>
  <p v-if="!answer" class="mt-6 text-soft" aria-live="polite">{{ phrase('log.review.working') }}</p>
  <div v-else class="mt-4 grid items-start gap-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <section class="sheet p-5" data-review>
      <p class="text-soft">{{ answer.title }}</p>
      <h2 class="mt-0.5 flex gap-2.5 text-2xl" :data-review-answer="answer.answer">
        <Check
          v-if="!MARKS[answer.answer]"
          :size="26"
          aria-hidden="true"
          class="mt-1 shrink-0 text-sea"
        />
        <SeverityMark v-else :severity="MARKS[answer.answer]!" class="mt-1.5 shrink-0" />
        {{ answer.headline }}
      </h2>
      <p v-for="text in answer.why" :key="text" class="mt-2 max-w-prose text-pretty">{{ text }}</p>
      <h3 class="mt-5 border-t border-line pt-4 text-xl">{{ phrase('log.review.verdict') }}</h3>
      <p class="mt-1 max-w-prose text-pretty" data-review-same>{{ answer.verdict.join(' ') }}</p>
      <dl class="mt-2 grid gap-x-5 gap-y-1.5 sm:grid-cols-[auto_1fr]">
        <dt class="text-soft">{{ phrase('log.review.planned') }}</dt>
        <dd class="font-semibold"><SentenceText :tokens="answer.planned" plain /></dd>
        <dt class="text-soft">{{ phrase('log.review.now') }}</dt>
        <dd class="font-semibold"><SentenceText :tokens="answer.now" plain /></dd>
      </dl>
      <table v-if="answer.known.length" class="mt-4 w-full text-left" data-review-known>
        <thead>
          <tr class="border-b border-edge">
            <th scope="col" class="eyebrow py-1 pr-3">{{ phrase('log.review.known') }}</th>
            <th scope="col" class="eyebrow py-1 pr-3">{{ phrase('log.review.plan_column') }}</th>
            <th scope="col" class="eyebrow py-1">{{ phrase('log.review.log_column') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in answer.known" :key="row.name" class="border-b border-line">
            <th scope="row" class="py-1.5 pr-3 font-normal">{{ row.name }}</th>
            <td class="py-1.5 pr-3 whitespace-nowrap">{{ row.planned }}</td>
            <td class="py-1.5 font-semibold">{{ row.logged }}</td>
          </tr>
        </tbody>
      </table>
      <p class="mt-4 flex flex-wrap gap-2 print:hidden">
        <button v-if="answer.operations.length" type="button" class="btn" @click="attempt">
          {{ phrase('log.review.try') }}
        </button>
        <a class="btn" :href="paper" target="_blank" rel="noopener">
          <Printer :size="16" aria-hidden="true" /> {{ phrase('log.review.print') }}
        </a>
      </p>
    </section>
    <section class="px-1" data-review-todo>
      <h2 class="text-xl">{{ phrase('log.review.todo') }}</h2>
      <ul v-if="answer.todo.length" class="mt-1 divide-y divide-line">
        <li v-for="text in answer.todo" :key="text" class="py-2 text-pretty">{{ text }}</li>
      </ul>
      <p v-else class="mt-1 text-soft">{{ phrase('log.review.nothing_to_do') }}</p>
    </section>
  </div>
</template>
