<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { PAGE } from '@/stores/useWindow'
import { Download, Pause, Play } from '@lucide/vue'
import { computed, onBeforeUnmount, ref, watch } from 'vue'

interface Reading {
  hours: number
  volts: number
  amps: number
  soc: number
  celsius: number
}
const plan = usePlan()
const ui = useUi()
const banks = computed(() => [
  ...plan
    .rig!.banks.candidates.filter((c) => c.figures.usable_wh)
    .map((c) => ({ id: c.id, name: `${c.title}, ${c.layout}` })),
  ...(plan.document.old_bank ? [{ id: 'old', name: phrase('trial.monitor_part.old_bank') }] : []),
])
const bank = ref(banks.value[0]?.id ?? '')
const speed = ref(12)
const reading = ref<Reading | null>(null)
const trail = ref<Reading[]>([])
const playing = ref(false)
let stream: EventSource | null = null
const SPEEDS = [
  { value: 1, name: phrase('trial.monitor_part.hour_per_second') },
  { value: 12, name: phrase('trial.monitor_part.half_day_per_second') },
  { value: 96, name: phrase('trial.monitor_part.four_days_per_second') },
]
const TRAIL = 400

function pause() {
  stream?.close()
  stream = null
  playing.value = false
}

function play() {
  pause()
  const from = reading.value ? Math.round(reading.value.hours * 4) + 1 : 0
  playing.value = true
  stream = new EventSource(
    `/api/rigs/${plan.rig!.id}/monitor?bank=${bank.value}&hours_per_second=${speed.value}&start_step=${from}&page=${PAGE}`,
  )
  stream.onmessage = (event) => {
    reading.value = JSON.parse(event.data) as Reading
    trail.value = [...trail.value.slice(1 - TRAIL), reading.value]
  }
  stream.addEventListener('end', pause)
  stream.onerror = () => {
    if (stream?.readyState === EventSource.CLOSED) {
      ui.say(phrase('trial.monitor_part.two_monitors_already_playing'))
    }
    pause()
  }
}

function begin() {
  pause()
  reading.value = null
  trail.value = []
}
watch([bank, () => plan.rig?.revision], begin)
watch(speed, () => playing.value && play())
onBeforeUnmount(pause)

const clock = computed(() => {
  const h = reading.value?.hours ?? 0
  const minutes = String(Math.round((h % 1) * 60)).padStart(2, '0')
  return phrase('trial.monitor_part.day', {
    h: Math.floor(h / 24) + 1,
    h2: String(Math.floor(h % 24)).padStart(2, '0'),
    minutes,
  })
})
const line = computed(() =>
  trail.value.map((r, i) => `${(i / TRAIL) * 100},${40 - r.soc * 38}`).join(' '),
)
const shown = (v: number | undefined, digits: number) =>
  v === undefined ? '—' : v.toFixed(digits).replace('-', '−')
</script>

<template>
  <p class="mb-3 max-w-3xl text-pretty text-soft">
    {{ phrase('trial.monitor_part.simulated_battery_monitor_plays') }}
  </p>
  <p v-if="!banks.length" class="text-soft">{{ phrase('trial.monitor_part.add_bank_first') }}</p>
  <section v-else class="sheet max-w-3xl p-5" data-monitor>
    <div class="flex flex-wrap items-end gap-3">
      <label class="min-w-0 grow">
        <span class="eyebrow mb-1 block">{{ phrase('trial.monitor_part.connected') }}</span>
        <select v-model="bank" class="field" data-monitor-bank>
          <option v-for="b in banks" :key="b.id" :value="b.id">{{ b.name }}</option>
        </select>
      </label>
      <label>
        <span class="eyebrow mb-1 block">{{ phrase('trial.monitor_part.speed') }}</span>
        <select v-model.number="speed" class="field">
          <option v-for="s in SPEEDS" :key="s.value" :value="s.value">{{ s.name }}</option>
        </select>
      </label>
      <button v-if="!playing" type="button" class="btn btn-main" @click="play">
        <Play :size="16" aria-hidden="true" />
        {{ reading ? 'Go on' : phrase('trial.monitor_part.play') }}
      </button>
      <button v-else type="button" class="btn" @click="pause">
        <Pause :size="16" aria-hidden="true" /> {{ phrase('trial.monitor_part.pause') }}
      </button>
    </div>
    <dl class="mt-5 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4" data-monitor-reads>
      <div>
        <dt class="text-soft">{{ phrase('trial.monitor_part.voltage') }}</dt>
        <dd class="text-3xl font-semibold">{{ shown(reading?.volts, 2) }} V</dd>
      </div>
      <div>
        <dt class="text-soft">{{ phrase('trial.monitor_part.current') }}</dt>
        <dd class="text-3xl font-semibold">{{ shown(reading?.amps, 1) }} A</dd>
      </div>
      <div>
        <dt class="text-soft">{{ phrase('trial.monitor_part.charge') }}</dt>
        <dd class="text-3xl font-semibold">
          {{ reading ? `${(reading.soc * 100).toFixed(0)} %` : '—' }}
        </dd>
      </div>
      <div>
        <dt class="text-soft">{{ phrase('trial.monitor_part.battery') }}</dt>
        <dd class="text-3xl font-semibold">{{ shown(reading?.celsius, 1) }} °C</dd>
      </div>
    </dl>
    <p class="mt-3 text-soft">{{ clock }}</p>
    <svg
      viewBox="0 0 100 42"
      preserveAspectRatio="none"
      class="mt-1 h-24 w-full"
      aria-hidden="true"
    >
      <line x1="0" x2="100" y1="40" y2="40" stroke="var(--line)" stroke-width="0.4" />
      <line x1="0" x2="100" y1="2" y2="2" stroke="var(--line)" stroke-width="0.4" />
      <polyline
        :points="line"
        fill="none"
        stroke="var(--sea)"
        stroke-width="1.6"
        vector-effect="non-scaling-stroke"
      />
    </svg>
    <div class="mt-3 flex flex-wrap gap-2">
      <a class="btn" :href="`/api/rigs/${plan.rig!.id}/monitor.csv?bank=${bank}`" download>
        <Download :size="16" aria-hidden="true" />
        {{ phrase('trial.monitor_part.log_whole_trial_csv') }}
      </a>
      <button v-if="reading" type="button" class="btn btn-quiet" @click="begin">
        {{ phrase('trial.monitor_part.start') }}
      </button>
    </div>
  </section>
</template>
