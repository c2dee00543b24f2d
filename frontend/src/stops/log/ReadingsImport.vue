<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, problemsOf, type Schemas } from '@/api/client'
import { PAGE } from '@/stores/useWindow'
import { Upload } from '@lucide/vue'
import { computed, nextTick, onBeforeUnmount, ref, shallowRef } from 'vue'

/** A file of a monitor: chosen, shown as it is understood, corrected, and imported. */
const props = defineProps<{ rig: number }>()
const emit = defineEmits<{ done: [] }>()
const BANKS = ['present', 'old', 'second', 'starting'] as const
const NAMES = {
  present: phrase('log.readings.present'),
  old: phrase('log.readings.old'),
  second: phrase('log.readings.second'),
  starting: phrase('log.readings.starting'),
}
const ORDERS = {
  ymd: phrase('log.readings.ymd'),
  dmy: phrase('log.readings.dmy'),
  mdy: phrase('log.readings.mdy'),
  s: phrase('log.readings.seconds'),
  ms: phrase('log.readings.milliseconds'),
}
const UNITS: Record<string, string> = {
  '1': phrase('log.readings.fraction'),
  Ah: phrase('log.readings.ah_left'),
  '-Ah': phrase('log.readings.ah_used'),
}
const zones = Intl.supportedValuesOf('timeZone')
const here = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'
const picker = ref<HTMLInputElement | null>(null)
const panel = ref<HTMLElement | null>(null)
const bank = ref<(typeof BANKS)[number]>('present')
const staged = shallowRef<Schemas['StagedFileView'] | null>(null)
const zone = ref(here)
const problem = ref('')
const busy = ref(false)
const share = ref<number | null>(null)
const found = shallowRef<Schemas['MonitorFindingView'][]>([])
let stream: EventSource | null = null

async function take(file: File | undefined) {
  if (!file) return
  problem.value = ''
  found.value = []
  staged.value = null
  busy.value = true
  const query = new URLSearchParams({ name: file.name, zone: here, bank: bank.value })
  const answer = await fetch(`/api/rigs/${props.rig}/log/files?${query}`, {
    method: 'POST',
    headers: { 'Content-Type': 'text/csv' },
    body: file,
  }).catch(() => null)
  const body = await answer?.json().catch(() => null)
  busy.value = false
  if (!answer?.ok) return void (problem.value = problemsOf(body)[0]!.message)
  staged.value = body
  zone.value = body.zone
  await nextTick()
  panel.value?.focus()
}

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  void take(file)
}

type Change = Partial<Schemas['MonitorLookBody']>
/** The same file, understood in another way. */
async function look(change: Change) {
  const s = staged.value!
  const { data, error } = await api
    .POST('/api/rigs/{rig_id}/log/files/{token}/look', {
      params: { path: { rig_id: props.rig, token: s.token } },
      body: {
        columns: s.columns.map((c) => ({ role: c.role, unit: c.unit })),
        decimal: s.decimal,
        order: s.order,
        zone: s.zone,
        into_bank: s.into_bank,
        ...change,
      },
    })
    .catch(() => ({ data: undefined, error: undefined }))
  problem.value = data ? '' : problemsOf(error)[0]!.message
  if (data) staged.value = data
}
const column = (at: number, role: string, unit = '') =>
  look({
    columns: staged.value!.columns.map((c, i) =>
      i === at ? { role, unit } : { role: c.role, unit: c.unit },
    ),
    // With other columns it is found out anew how dates are written and which way the current flows.
    order: '',
    into_bank: null,
  })
const unitsOf = (role: string) => staged.value!.roles.find((r) => r.key === role)?.units ?? []
const amps = computed(() => staged.value?.columns.some((c) => c.role === 'amps'))
const SIGNS: Record<string, string> = {
  soc: phrase('log.readings.sign_soc'),
  volts: phrase('log.readings.sign_volts'),
}

function run() {
  problem.value = ''
  share.value = 0
  stream = new EventSource(
    `/api/rigs/${props.rig}/log/files/${staged.value!.token}/import?page=${PAGE}`,
  )
  stream.onmessage = (event) => {
    const told = JSON.parse(event.data)
    if (told.share !== undefined) share.value = told.share
    if (told.problem) {
      stop()
      problem.value = told.problem
    }
    if (told.done) {
      stop()
      staged.value = null
      found.value = told.done
      emit('done')
    }
  }
  stream.onerror = () => {
    stop()
    problem.value = phrase('log.readings.stopped')
  }
}
function stop() {
  stream?.close()
  stream = null
  share.value = null
}
onBeforeUnmount(stop)
</script>

<template>
  <section data-readings-import>
    <div class="flex flex-wrap items-end gap-3">
      <label>
        <span class="eyebrow mb-1 block">{{ phrase('log.stop.bank') }}</span>
        <select v-model="bank" class="field" :disabled="Boolean(staged)">
          <option v-for="b in BANKS" :key="b" :value="b">{{ NAMES[b] }}</option>
        </select>
      </label>
      <button
        type="button"
        class="btn"
        :class="staged ? '' : 'btn-main'"
        :disabled="busy || share !== null"
        @click="picker?.click()"
      >
        <Upload :size="16" aria-hidden="true" />
        {{ busy ? phrase('log.readings.looking') : phrase('log.readings.choose') }}
      </button>
      <input
        ref="picker"
        type="file"
        accept=".csv,.txt,.tsv,.log,text/csv,text/plain"
        class="sr-only"
        tabindex="-1"
        :aria-label="phrase('log.readings.file')"
        @change="picked"
      />
    </div>
    <p v-if="problem" class="mt-3 text-blocking" role="alert" data-import-problem>{{ problem }}</p>
    <ul v-if="found.length" class="mt-3" aria-live="polite" data-import-found>
      <li v-for="(f, i) in found" :key="i" :class="i ? 'text-soft' : 'font-semibold'">
        {{ f.text }}
      </li>
    </ul>
    <div
      v-if="staged"
      ref="panel"
      class="sheet mt-4 p-5 outline-none"
      tabindex="-1"
      data-staged
      :aria-label="phrase('log.readings.understood', { name: staged.name })"
      role="group"
    >
      <h2 class="text-xl break-words">
        {{ phrase('log.readings.understood', { name: staged.name }) }}
      </h2>
      <ul class="mt-3 grid gap-3 sm:grid-cols-2 xl:grid-cols-4">
        <li v-for="(c, i) in staged.columns" :key="i" :data-column="i">
          <label class="block">
            <span class="eyebrow mb-1 block truncate">{{
              c.name || phrase('log.readings.column', { number: i + 1 })
            }}</span>
            <select
              class="field"
              :value="c.role"
              @change="column(i, ($event.target as HTMLSelectElement).value)"
            >
              <option value="">{{ phrase('log.readings.left_out') }}</option>
              <option v-for="r in staged.roles" :key="r.key" :value="r.key">{{ r.name }}</option>
            </select>
          </label>
          <div
            v-if="unitsOf(c.role).length"
            class="mt-1 flex flex-wrap gap-1"
            role="group"
            :aria-label="phrase('log.readings.unit')"
          >
            <button
              v-for="u in unitsOf(c.role)"
              :key="u"
              type="button"
              class="btn"
              :class="u === c.unit ? 'btn-main' : ''"
              :aria-pressed="u === c.unit"
              @click="column(i, c.role, u)"
            >
              {{ UNITS[u] ?? u }}
            </button>
          </div>
        </li>
      </ul>
      <div class="mt-4 grid gap-3 sm:grid-cols-2 xl:grid-cols-4">
        <label class="block">
          <span class="eyebrow mb-1 block">{{ phrase('log.readings.order') }}</span>
          <select
            class="field"
            :value="staged.order"
            data-order
            @change="look({ order: ($event.target as HTMLSelectElement).value })"
          >
            <option v-for="(name, key) in ORDERS" :key="key" :value="key">{{ name }}</option>
          </select>
          <span v-if="!staged.order_sure" class="mt-1 block text-caution">{{
            phrase('log.readings.order_unsure')
          }}</span>
        </label>
        <label class="block">
          <span class="eyebrow mb-1 block">{{ phrase('log.readings.zone') }}</span>
          <input
            v-model="zone"
            class="field"
            list="log-zones"
            autocomplete="off"
            data-zone
            @change="look({ zone })"
          />
          <datalist id="log-zones"><option v-for="z in zones" :key="z" :value="z" /></datalist>
        </label>
        <label class="block">
          <span class="eyebrow mb-1 block">{{ phrase('log.readings.decimal') }}</span>
          <select
            class="field"
            :value="staged.decimal"
            @change="look({ decimal: ($event.target as HTMLSelectElement).value })"
          >
            <option value=".">{{ phrase('log.readings.point') }}</option>
            <option value=",">{{ phrase('log.readings.comma') }}</option>
          </select>
        </label>
        <label v-if="amps" class="block">
          <span class="eyebrow mb-1 block">{{ phrase('log.readings.sign') }}</span>
          <select
            class="field"
            :value="String(staged.into_bank)"
            data-sign
            @change="look({ into_bank: ($event.target as HTMLSelectElement).value === 'true' })"
          >
            <option value="true">{{ phrase('log.readings.sign_in') }}</option>
            <option value="false">{{ phrase('log.readings.sign_out') }}</option>
          </select>
          <span v-if="SIGNS[staged.sign_from]" class="mt-1 block text-soft">{{
            SIGNS[staged.sign_from]
          }}</span>
          <span v-else-if="!staged.sign_from" class="mt-1 block text-caution">{{
            phrase('log.readings.sign_unsure')
          }}</span>
        </label>
      </div>
      <p v-if="staged.problem" class="mt-4 text-blocking" role="alert">{{ staged.problem }}</p>
      <div v-if="staged.rows.length" class="mt-4 overflow-x-auto">
        <table class="w-full text-right tabular-nums" data-first-rows>
          <caption class="eyebrow mb-1 text-left">
            {{
              phrase('log.readings.first_rows')
            }}
          </caption>
          <thead>
            <tr class="border-b border-edge">
              <th
                v-for="(h, i) in staged.head"
                :key="h"
                scope="col"
                class="eyebrow px-2 py-1 first:pl-0"
                :class="i ? '' : 'text-left'"
              >
                {{ h }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, r) in staged.rows" :key="r" class="border-b border-line">
              <td
                v-for="(cell, i) in row"
                :key="i"
                class="px-2 py-1 whitespace-nowrap first:pl-0"
                :class="i ? '' : 'text-left'"
              >
                {{ cell }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="mt-4 flex flex-wrap items-center gap-3">
        <template v-if="share === null">
          <button
            type="button"
            class="btn btn-main"
            :disabled="Boolean(staged.problem)"
            data-import
            @click="run"
          >
            {{ phrase('log.readings.import') }}
          </button>
          <button type="button" class="btn btn-quiet" @click="staged = null">
            {{ phrase('log.readings.cancel') }}
          </button>
        </template>
        <template v-else>
          <progress class="h-3 w-64 max-w-full" :value="share" max="1" />
          <span class="text-soft">{{
            phrase('log.readings.share', { share: Math.round(share * 100) })
          }}</span>
          <button type="button" class="btn" data-cancel-import @click="stop">
            {{ phrase('log.readings.cancel') }}
          </button>
        </template>
      </div>
    </div>
  </section>
</template>
