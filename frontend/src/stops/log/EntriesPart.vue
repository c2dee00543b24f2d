<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, problemsOf, type Schemas } from '@/api/client'
import { FileDown } from '@lucide/vue'
import { computed, defineAsyncComponent, nextTick, ref, watch } from 'vue'
import { dateOf } from '@/ui/when'
import DutyList from './DutyList.vue'
import EntryRound from './EntryRound.vue'
import EntryForm from './EntryForm.vue'
import EntryRow from './EntryRow.vue'
import { now, useLog, type Entry, type Waiting } from './useLog'

const RoundsTable = defineAsyncComponent(() => import('./RoundsTable.vue'))

/** The log: one line to enter, and what was entered, the newest first. */
const log = useLog()
const { plan, view, duties, entries, more, kind, failed, waiting, held } = log
const line = ref('')
const bank = ref('present')
const understood = ref<Entry | null>(null)
const problem = ref('')
const editing = ref<Entry | null | 'new'>(null)
const field = ref<HTMLInputElement | null>(null)
let timer = 0

/** What the line is understood as, a moment after the last key. */
watch([line, bank], () => {
  clearTimeout(timer)
  problem.value = ''
  if (!line.value.trim()) return void (understood.value = null)
  timer = window.setTimeout(async () => {
    const asked = line.value
    const answer = await api
      .POST('/api/rigs/{rig_id}/log/understand', {
        params: { path: log.path },
        body: { line: asked, bank: bank.value, ...now() },
      })
      .catch(() => undefined)
    if (asked !== line.value || !answer) return
    understood.value = answer.data ?? null
    problem.value = answer.data ? '' : problemsOf(answer.error)[0]!.message
  }, 200)
})

async function add() {
  if (!line.value.trim() || problem.value) return field.value?.focus()
  const typed = line.value
  line.value = ''
  understood.value = null
  const refused = await log.add(typed, bank.value)
  if (refused && !line.value) {
    line.value = typed
    await nextTick()
    problem.value = refused
  }
  await nextTick()
  field.value?.focus()
}

async function saved() {
  editing.value = null
  await Promise.all([log.load(), plan.logChanged()])
}

async function waits(entry: Waiting) {
  editing.value = null
  await log.wait(entry)
}

const dayOf = (entry: { at: number; offset_min: number }) =>
  new Date((entry.at + 60 * entry.offset_min) * 1000).toISOString().slice(0, 10)
const NAMES = computed(() => {
  const day = (back: number) => new Date(Date.now() - back * 864e5).toLocaleDateString('sv')
  return new Map([
    [day(0), phrase('log.stop.today')],
    [day(1), phrase('log.stop.yesterday')],
  ])
})
const nameOf = (day: string) => NAMES.value.get(day) ?? dateOf(day, 'short')
const days = computed(() => {
  const found: { day: string; list: Entry[][] }[] = []
  for (const entry of entries.value) {
    const day = dayOf(entry)
    if (found.at(-1)?.day !== day) found.push({ day, list: [] })
    const list = found.at(-1)!.list
    // What was read of one battery after the other is one round with the meter.
    if (ofBattery(entry) && list.at(-1)?.every(ofBattery)) list.at(-1)!.push(entry)
    else list.push([entry])
  }
  return found
})
const ofBattery = (entry: Entry) => entry.kind === 'reading' && entry.battery > 0
const what = (entry: Entry) =>
  [entry.kind_name, ...entry.said.map((s: Schemas['LogSaidView']) => s.text), entry.text]
    .filter(Boolean)
    .join(', ')
const at = computed(() => `/api/rigs/${plan.rig!.id}`)
</script>

<template>
  <div class="flex flex-col gap-6">
    <DutyList v-if="duties.length" :rig="plan.rig!.id" :duties="duties" @done="saved" />
    <form class="sheet max-sm:order-first px-5 py-4" data-log-line @submit.prevent="add">
      <div class="grid items-end gap-3 sm:grid-cols-[1fr_13rem_auto]">
        <label class="block">
          <span class="eyebrow mb-1 block">{{ phrase('log.stop.line') }}</span>
          <input
            ref="field"
            v-model="line"
            class="field text-lg"
            autocomplete="off"
            autocapitalize="off"
            enterkeyhint="send"
            maxlength="2000"
            :placeholder="phrase('log.stop.example')"
            :aria-invalid="Boolean(problem)"
            aria-describedby="log-understood"
          />
        </label>
        <label class="block">
          <span class="eyebrow mb-1 block">{{ phrase('log.stop.bank') }}</span>
          <select v-model="bank" class="field">
            <option v-for="b in view?.banks ?? []" :key="b.key" :value="b.key">{{ b.name }}</option>
          </select>
        </label>
        <button type="submit" class="btn btn-main" data-add-entry>
          {{ phrase('log.stop.add') }}
        </button>
      </div>
      <div id="log-understood" class="mt-2 min-h-6" aria-live="polite">
        <p v-if="problem" class="text-blocking" data-log-problem>{{ problem }}</p>
        <p v-else-if="understood" data-understood>
          <span class="text-soft">{{ phrase('log.stop.understood') }}&nbsp;</span>
          <b> {{ understood.kind_name }}</b><template v-for="s in understood.said" :key="s.field"
            >, {{ s.text }}</template
          ><template v-if="understood.text">, “{{ understood.text }}”</template>
          <span class="text-soft">
            · {{ understood.bank_name }}, {{ nameOf(dayOf(understood)) }}</span
          >
        </p>
        <p v-else class="text-soft">{{ phrase('log.stop.hint') }}</p>
      </div>
      <button
        v-if="editing !== 'new' && view"
        type="button"
        class="btn btn-quiet -ml-3 mt-1"
        data-log-form
        @click="editing = 'new'"
      >
        {{ phrase('log.stop.form') }}
      </button>
    </form>
  </div>
  <EntryForm
    v-if="editing === 'new' && view"
    :view="view"
    :entry="null"
    class="mt-4"
    @saved="saved"
    @waits="waits"
    @cancel="editing = null"
  />
  <section v-if="waiting.length" class="mt-4" data-log-waiting>
    <p class="text-soft">
      {{ held ? phrase('log.stop.held') : phrase('log.stop.unanswered') }}
    </p>
    <ul class="mt-1 divide-y divide-line border-y border-line">
      <li v-for="w in waiting" :key="w.id" class="flex flex-wrap items-center gap-x-4 py-2">
        <b>{{ w.line }}</b>
        <span v-if="w.refused" class="text-blocking">{{
          phrase('log.stop.refused', { says: w.refused })
        }}</span>
        <span v-else class="text-soft">{{ phrase('log.stop.waits') }}</span>
        <button type="button" class="btn btn-quiet ml-auto" @click="log.forget(w)">
          {{ phrase('log.stop.forget', { what: w.line }) }}
        </button>
      </li>
    </ul>
  </section>
  <RoundsTable v-if="view?.count" class="mt-6" />
  <div v-if="view?.count" class="mt-6 flex flex-wrap items-end gap-3">
    <label class="block">
      <span class="eyebrow mb-1 block">{{ phrase('log.stop.filter') }}</span>
      <select v-model="kind" class="field" data-log-filter @change="log.load()">
        <option value="">{{ phrase('log.stop.all') }}</option>
        <option v-for="k in view.kinds" :key="k.key" :value="k.key">{{ k.name }}</option>
      </select>
    </label>
    <span class="grow" />
    <a class="btn" :href="`${at}/log.csv`" download
      ><FileDown :size="16" aria-hidden="true" /> {{ phrase('log.stop.csv') }}</a
    >
    <a class="btn" :href="`${at}/log.json`" download>{{ phrase('log.stop.json') }}</a>
    <a class="btn" :href="`${at}/archive`" download data-archive>{{
      phrase('log.stop.archive')
    }}</a>
  </div>
  <p v-else-if="view && !waiting.length" class="mt-8 max-w-xl text-lg text-soft" data-log-empty>
    {{ phrase('log.stop.empty') }}
  </p>
  <p v-if="failed && !entries.length" class="mt-6 text-soft">{{ phrase('log.stop.not_loaded') }}</p>
  <section v-for="d in days" :key="d.day" class="mt-5" :data-log-day="d.day">
    <h2 class="eyebrow">{{ nameOf(d.day) }}</h2>
    <ul class="mt-1 divide-y divide-line border-y border-line">
      <li v-for="list in d.list" :key="list[0]!.id">
        <component
          :is="list.length > 2 ? EntryRound : 'div'"
          :entries="list.length > 2 ? list : undefined"
        >
          <div v-for="e in list" :key="e.id" :data-entry="e.id" :data-kind="e.kind">
            <EntryForm
              v-if="editing !== 'new' && editing?.id === e.id && view"
              :view="view"
              :entry="e"
              class="my-3"
              @saved="saved"
              @cancel="editing = null"
            />
            <EntryRow
              v-else
              :entry="e"
              :what="what(e)"
              @edit="editing = e"
              @remove="log.remove(e, what(e))"
            />
          </div>
        </component>
      </li>
    </ul>
  </section>
  <button v-if="more" type="button" class="btn mt-4" data-log-more @click="log.load(true)">
    {{ phrase('log.stop.more') }}
  </button>
</template>
