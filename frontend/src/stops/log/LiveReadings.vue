<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, problemsOf, type Problem, type Schemas } from '@/api/client'
import { Radio } from '@lucide/vue'
import { computed, onBeforeUnmount, reactive, ref, shallowRef } from 'vue'

/** A monitor that is listened to: a Signal K server aboard, or one of the simulated ones. */
const props = defineProps<{ rig: number }>()
const emit = defineEmits<{ kept: [] }>()
const LOOK_EVERY = 1500
const SOURCES = {
  signal_k: phrase('log.live.signal_k'),
  trial: phrase('log.live.trial'),
  simulated: phrase('log.live.simulated'),
}
const form = reactive({
  source: 'signal_k' as keyof typeof SOURCES,
  host: '',
  port: '8375',
  battery: '',
  out: false,
})
const open = ref(false)
const busy = ref(false)
const problems = ref<Problem[]>([])
const live = shallowRef<Schemas['LiveView'] | null>(null)
const path = { rig_id: props.rig }
let timer = 0
let told = 0

const at = (place: string) => problems.value.find((p) => p.path === place)?.message
const elsewhere = computed(() =>
  problems.value.filter((p) => !['/host', '/port', '/battery'].includes(p.path)),
)

function take(view: Schemas['LiveView'] | undefined) {
  if (!view) return
  const ended = live.value?.running && !view.running
  live.value = view
  if (view.running) open.value = true
  // The lines are drawn anew when it ends, and now and then before.
  if (ended || view.count > told + 500) {
    told = view.count
    emit('kept')
  }
  clearTimeout(timer)
  if (view.running) timer = window.setTimeout(look, LOOK_EVERY)
}
async function look() {
  const { data } = await api
    .GET('/api/rigs/{rig_id}/log/live', { params: { path } })
    .catch(() => ({ data: undefined }))
  if (data) take(data)
  else timer = window.setTimeout(look, 4 * LOOK_EVERY)
}
async function begin() {
  busy.value = true
  problems.value = []
  told = 0
  const own = form.source === 'signal_k'
  const port = /^\d{1,5}$/.test(form.port.trim()) ? Number(form.port) : 0
  const { data, error } = await api
    .POST('/api/rigs/{rig_id}/log/live', {
      params: { path },
      body: {
        source: form.source,
        bank: 'present',
        zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
        host: own ? form.host : '',
        port: own ? port : 8375,
        battery: own ? form.battery.trim() : '',
        into_bank: !form.out,
        hours_per_second: 24,
      },
    })
    .catch((error: unknown) => ({ data: undefined, error }))
  busy.value = false
  if (error) problems.value = problemsOf(error)
  take(data)
}
async function end() {
  const { data } = await api
    .DELETE('/api/rigs/{rig_id}/log/live', { params: { path } })
    .catch(() => ({ data: undefined }))
  take(data)
}
onBeforeUnmount(() => clearTimeout(timer))
void look()
</script>

<template>
  <section data-live>
    <button
      type="button"
      class="btn"
      :aria-expanded="open"
      aria-controls="live-panel"
      @click="open = !open"
    >
      <Radio :size="16" aria-hidden="true" /> {{ phrase('log.live.title') }}
    </button>
    <div v-show="open" id="live-panel" class="sheet mt-3 p-4">
      <p class="max-w-3xl text-pretty text-soft">{{ phrase('log.live.lead') }}</p>
      <div v-if="live?.name" class="mt-3" aria-live="polite" data-live-state>
        <p class="font-semibold">
          {{ live.name }}
          <span class="font-normal text-soft">{{
            live.running
              ? phrase('log.live.kept', { count: live.count })
              : phrase('log.live.stopped', { count: live.count })
          }}</span>
        </p>
        <p v-if="live.last.length" class="tabular-nums">
          {{ live.at.slice(0, 16) }}: {{ live.last.filter((c) => c !== '—').join(', ') }}
        </p>
        <p v-if="live.problem" class="text-caution" role="status">{{ live.problem }}</p>
        <p v-if="live.batteries.length > 1" class="text-soft">
          {{ phrase('log.live.batteries', { names: live.batteries.join(', ') }) }}
        </p>
      </div>
      <button v-if="live?.running" type="button" class="btn mt-3" data-live-end @click="end">
        {{ phrase('log.live.end') }}
      </button>
      <form v-else class="mt-3 flex flex-wrap items-start gap-3" @submit.prevent="begin">
        <label class="block">
          <span class="eyebrow mb-1 block">{{ phrase('log.live.source') }}</span>
          <select v-model="form.source" class="field" name="source">
            <option v-for="(name, key) in SOURCES" :key="key" :value="key">{{ name }}</option>
          </select>
        </label>
        <template v-if="form.source === 'signal_k'">
          <label class="block">
            <span class="eyebrow mb-1 block">{{ phrase('log.live.host') }}</span>
            <input
              v-model="form.host"
              class="field w-52"
              name="host"
              placeholder="192.168.1.10"
              autocapitalize="off"
              spellcheck="false"
              :aria-invalid="Boolean(at('/host'))"
              aria-describedby="live-host-problem"
            />
            <span
              v-if="at('/host')"
              id="live-host-problem"
              role="alert"
              class="mt-1 block max-w-72 text-blocking"
              >{{ at('/host') }}</span
            >
          </label>
          <label class="block">
            <span class="eyebrow mb-1 block">{{ phrase('log.live.port') }}</span>
            <input
              v-model="form.port"
              class="field w-24"
              name="port"
              inputmode="numeric"
              :aria-invalid="Boolean(at('/port'))"
            />
            <span v-if="at('/port')" role="alert" class="mt-1 block max-w-40 text-blocking">{{
              phrase('log.live.port_problem')
            }}</span>
          </label>
          <label class="block">
            <span class="eyebrow mb-1 block">{{ phrase('log.live.battery') }}</span>
            <input
              v-model="form.battery"
              class="field w-36"
              name="battery"
              :placeholder="phrase('log.live.first')"
              autocapitalize="off"
              spellcheck="false"
              :aria-invalid="Boolean(at('/battery'))"
            />
            <span v-if="at('/battery')" role="alert" class="mt-1 block max-w-48 text-blocking">{{
              phrase('log.live.battery_problem')
            }}</span>
          </label>
          <label class="flex min-h-11 basis-full items-center gap-2">
            <input v-model="form.out" type="checkbox" class="size-5 accent-[var(--sea)]" />
            {{ phrase('log.live.out') }}
          </label>
        </template>
        <p v-for="p in elsewhere" :key="p.message" role="alert" class="basis-full text-blocking">
          {{ p.message }}
        </p>
        <p class="basis-full">
          <button type="submit" class="btn btn-main" :disabled="busy" data-live-begin>
            {{ phrase('log.live.begin') }}
          </button>
        </p>
      </form>
    </div>
  </section>
</template>
