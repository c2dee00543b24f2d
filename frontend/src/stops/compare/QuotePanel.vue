<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import SentenceText from '@/ui/SentenceText.vue'
import { ChevronLeft, ChevronRight } from '@lucide/vue'
import { computed } from 'vue'
import { useQuote } from './useQuote'

const props = defineProps<{
  /** The verdict in one line. */
  says: Schemas['TokenView'][]
  /** What to think of each quote that is in the comparison. */
  answers: Schemas['QuoteAnswerView'][]
}>()
/** The battery that the owner was offered: pasted, read, and put in place of the typical one. */
const plan = usePlan()
const reference = useReference()
const { text, batteryClass, which, quote, problem, busy, before, full, answer, take } = useQuote(
  () => props.says,
)
const compare = computed(() => plan.rig!.compare)
/** Whom it replaces: the bank of the verdict where it is a candidate, else the first of its class. */
const instead = computed(() => {
  const key = quote.value?.model?.battery_class
  const typical = compare.value.compared_banks.filter((c) => c.index >= 0 && !c.own)
  return (
    typical.find((c) => c.id === compare.value.verdict.winner && c.battery_class === key) ??
    typical.find((c) => c.battery_class === key)
  )
})
const lists = computed(() => [
  { key: 'said', name: phrase('compare.quote_panel.understood'), list: quote.value?.said ?? [] },
  { key: 'filled', name: phrase('compare.quote_panel.filled'), list: quote.value?.filled ?? [] },
])
</script>

<template>
  <article
    v-for="a in answers"
    :key="a.id"
    class="mb-4 max-w-3xl rounded-lg border border-line bg-sheet p-4"
    :data-quote-answer="a.id"
  >
    <h3 class="text-lg">{{ a.title }}</h3>
    <p v-for="(s, i) in a.says" :key="i" class="mt-1 leading-snug"><SentenceText :tokens="s" /></p>
  </article>
  <p class="mb-3 max-w-3xl text-pretty text-soft">{{ phrase('compare.quote_panel.lead') }}</p>
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-2" data-quote-panel>
    <div>
      <label for="quote-text" class="eyebrow mb-1 block">{{
        phrase('compare.quote_panel.text')
      }}</label>
      <textarea
        id="quote-text"
        v-model="text"
        class="field leading-snug"
        rows="8"
        maxlength="20000"
        spellcheck="false"
        :placeholder="phrase('compare.quote_panel.placeholder')"
      />
      <label class="mt-2 block max-w-[18rem]">
        <span class="eyebrow mb-1 block">{{ phrase('compare.quote_panel.class') }}</span>
        <select v-model="batteryClass" class="field">
          <option v-for="c in reference.data?.classes" :key="c.key" :value="c.key">
            {{ c.name }}
          </option>
        </select>
      </label>
    </div>
    <div aria-live="polite" data-quote>
      <p v-if="quote && quote.count > 1" class="mb-2 flex items-center gap-2" data-offers>
        <button
          type="button"
          class="btn btn-icon"
          :disabled="which === 0"
          :aria-label="phrase('compare.quote_panel.previous')"
          @click="which--"
        >
          <ChevronLeft :size="16" />
        </button>
        {{ phrase('compare.quote_panel.which', { which: which + 1, count: quote.count }) }}
        <button
          type="button"
          class="btn btn-icon"
          :disabled="which + 1 >= quote.count"
          :aria-label="phrase('compare.quote_panel.next')"
          @click="which++"
        >
          <ChevronRight :size="16" />
        </button>
      </p>
      <p v-if="problem" class="mb-2 text-blocking" role="alert">{{ problem }}</p>
      <div
        v-for="a in quote?.asks"
        :key="a.field"
        class="mb-3 rounded-lg border border-caution p-3"
        :data-ask="a.field"
      >
        <p class="leading-snug">
          {{
            a.choices.length > 1
              ? phrase('compare.quote_panel.ask_which', { name: a.name, source: a.source })
              : phrase('compare.quote_panel.ask_right', { name: a.name, source: a.source })
          }}
        </p>
        <div class="mt-2 flex flex-wrap gap-2">
          <button
            v-for="c in a.choices"
            :key="c.value"
            type="button"
            class="btn"
            @click="answer(a.field, c.value)"
          >
            {{
              a.choices.length > 1
                ? c.text
                : phrase('compare.quote_panel.ask_yes', { text: c.text })
            }}
          </button>
        </div>
      </div>
      <template v-for="l in lists" :key="l.key">
        <h3
          v-if="l.list.length"
          class="font-sans font-semibold"
          :class="l.key === 'filled' ? 'mt-3 text-caution' : ''"
        >
          {{ l.name }}
        </h3>
        <dl v-if="l.list.length" class="divide-y divide-line" :data-said="l.key">
          <div
            v-for="f in l.list"
            :key="f.field"
            class="grid grid-cols-[1fr_auto] gap-x-4 py-0.5 leading-snug"
            :title="f.source ? phrase('compare.quote_panel.from', { source: f.source }) : undefined"
            :data-field="f.field"
          >
            <dt class="text-soft">{{ f.name }}</dt>
            <dd
              class="max-w-64 text-right break-words"
              :class="l.key === 'filled' ? 'text-soft italic' : 'font-semibold'"
            >
              {{ f.text }}
            </dd>
          </div>
        </dl>
      </template>
      <p v-if="full" class="mt-3 text-caution">{{ phrase('compare.quote_panel.most') }}</p>
      <div v-if="quote?.model && !full" class="mt-4 flex flex-wrap gap-2">
        <button
          v-if="instead"
          type="button"
          class="btn btn-main whitespace-normal"
          :disabled="busy"
          data-take="replace"
          @click="take(instead.index)"
        >
          {{ phrase('compare.quote_panel.replace', { title: instead.title }) }}
        </button>
        <button
          type="button"
          class="btn"
          :class="instead ? '' : 'btn-main'"
          :disabled="busy"
          data-take="beside"
          @click="take(null)"
        >
          {{ phrase('compare.quote_panel.beside') }}
        </button>
      </div>
    </div>
  </div>
  <div v-if="before" class="mt-5 rounded-lg border border-line bg-sheet p-4" data-changed>
    <h3 class="text-lg">{{ phrase('compare.quote_panel.changed') }}</h3>
    <dl class="mt-1 grid grid-cols-[5rem_1fr] gap-y-1">
      <dt class="text-soft">{{ phrase('compare.quote_panel.before') }}</dt>
      <dd><SentenceText :tokens="before" plain /></dd>
      <dt class="text-soft">{{ phrase('compare.quote_panel.now') }}</dt>
      <dd class="font-semibold">
        <SentenceText :tokens="says" plain />
      </dd>
    </dl>
    <RouterLink
      class="mt-2 inline-block text-sea underline underline-offset-4"
      :to="{
        name: 'rig',
        params: { id: plan.rig!.id, stop: 'banks' },
        query: { part: 'batteries' },
      }"
      >{{ phrase('compare.quote_panel.edit') }}</RouterLink
    >
  </div>
</template>
