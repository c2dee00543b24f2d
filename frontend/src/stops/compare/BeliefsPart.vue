<script setup lang="ts">
import { api, type Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import { STOP_NAMES, type Stop } from '@/api/lists'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { Check, CircleHelp, Equal, X } from '@lucide/vue'
import { computed, ref } from 'vue'

const plan = usePlan()
const { answer, asking } = useAsked<Schemas['BeliefsView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/compare/beliefs', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
/** What each answer is called, and its mark; no colour alone tells them apart. */
const ANSWERS = [
  { key: 'true', name: phrase('compare.beliefs_part.true_here'), icon: Check, tone: 'text-sea' },
  { key: 'half', name: phrase('compare.beliefs_part.half_true'), icon: Equal, tone: 'text-note' },
  {
    key: 'false',
    name: phrase('compare.beliefs_part.not_true_here'),
    icon: X,
    tone: 'text-caution',
  },
  {
    key: 'unknown',
    name: phrase('compare.beliefs_part.not_known_yet'),
    icon: CircleHelp,
    tone: 'text-soft',
  },
]
const chosen = ref('')
const counts = computed(() =>
  ANSWERS.map((a) => ({
    ...a,
    count: answer.value?.beliefs.filter((b) => b.answer === a.key).length ?? 0,
  })).filter((a) => a.count),
)
const shown = computed(
  () => answer.value?.beliefs.filter((b) => !chosen.value || b.answer === chosen.value) ?? [],
)
const opened = ref(new Set<string>())
function show(key: string, event: Event) {
  if ((event.target as HTMLDetailsElement).open) opened.value.add(key)
}
const answerOf = (key: string) => ANSWERS.find((a) => a.key === key)!
</script>

<template>
  <div v-if="answer" :aria-busy="asking" data-beliefs>
    <h2 class="sr-only">{{ phrase('compare.beliefs_part.true_or_not') }}</h2>
    <p class="max-w-3xl text-pretty text-soft">{{ phrase('compare.beliefs_part.lead') }}</p>
    <div
      class="mt-3 flex flex-wrap gap-2"
      role="group"
      :aria-label="phrase('compare.beliefs_part.show')"
    >
      <button
        v-for="a in counts"
        :key="a.key"
        type="button"
        class="btn"
        :aria-pressed="chosen === a.key"
        :class="chosen === a.key ? 'border-sea bg-wash ring-1 ring-sea' : ''"
        @click="chosen = chosen === a.key ? '' : a.key"
      >
        <component :is="a.icon" :size="17" :class="a.tone" aria-hidden="true" />
        {{ a.name }} · {{ a.count }}
      </button>
    </div>
    <ul class="mt-4 divide-y divide-line border-y border-line">
      <li v-for="b in shown" :key="b.key" :data-belief="b.key" :data-answer="b.answer">
        <details @toggle="show(b.key, $event)">
          <summary class="discloses flex min-h-11 w-full items-center">
            <span class="grid grow items-baseline gap-x-4 sm:grid-cols-[1fr_11rem]">
              <span class="text-lg leading-snug text-ink">“{{ b.claim }}”</span>
              <span
                class="flex items-center gap-1.5 font-semibold"
                :class="answerOf(b.answer).tone"
              >
                <component
                  :is="answerOf(b.answer).icon"
                  :size="18"
                  class="shrink-0"
                  aria-hidden="true"
                />
                {{ answerOf(b.answer).name }}
              </span>
            </span>
          </summary>
          <div v-if="opened.has(b.key)" class="grid gap-x-8 gap-y-3 pt-1 pb-4 pl-5 lg:grid-cols-2">
            <div class="space-y-2 leading-snug text-pretty">
              <p><SentenceText :tokens="b.says" /></p>
              <p v-if="b.follows">{{ b.follows }}</p>
              <p class="text-sm">
                <RouterLink
                  class="text-sea underline"
                  :to="{ name: 'rig', params: { id: plan.rig!.id, stop: b.stop } }"
                  >{{
                    phrase('compare.beliefs_part.open_page', { name: STOP_NAMES[b.stop as Stop] })
                  }}</RouterLink
                >
              </p>
            </div>
            <dl v-if="b.compared.length" class="space-y-1.5 text-sm">
              <div v-for="(figure, i) in b.compared" :key="figure.key">
                <div class="flex justify-between gap-3">
                  <dt class="text-soft">{{ b.names[i] }}</dt>
                  <dd><FigureLink :figure="figure" :name="b.names[i]!" /></dd>
                </div>
                <div v-if="b.shares.length" class="h-2 rounded-sm bg-wash" aria-hidden="true">
                  <div
                    class="h-2 rounded-sm"
                    :class="i ? 'bg-soft' : 'bg-sea'"
                    :style="{ width: `${Math.max(1, b.shares[i]! * 100)}%` }"
                  />
                </div>
              </div>
            </dl>
          </div>
        </details>
      </li>
    </ul>
  </div>
  <p v-else class="text-soft">{{ phrase('compare.beliefs_part.calculating') }}</p>
</template>
