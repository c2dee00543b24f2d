<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import { api } from '@/api/client'
import { Play, Square } from '@lucide/vue'
import { onBeforeUnmount, ref } from 'vue'
import { useChangeover } from './useChangeover'

/** Stands in for a real monitor during the acceptance test: it reads until the test ends or is stopped. */
const props = defineProps<{
  /** Minutes between two readings. */
  every: number
  /** Minutes of the last reading so far; below 0 for none. */
  last: number
  take: (reading: { minutes: string; volts: string; amps: string }) => Promise<unknown>
}>()
const { plan, view, fault } = useChangeover()
const running = ref(false)
const PAUSE_MS = 400
let timer: ReturnType<typeof setTimeout> | undefined

function stop() {
  running.value = false
  clearTimeout(timer)
}
onBeforeUnmount(stop)

function start() {
  running.value = true
  void read(props.last < 0 ? 0 : props.last + props.every)
}

async function read(minutes: number) {
  const { data } = await api.GET('/api/rigs/{rig_id}/changeover/monitor', {
    params: { path: { rig_id: plan.rig!.id }, query: { minutes, fault: fault.value } },
  })
  if (!data || !running.value) return stop()
  await props.take({
    minutes: minutes.toFixed(1),
    volts: String(data.volts),
    amps: String(data.amps),
  })
  if (data.ended || !running.value) return stop()
  timer = setTimeout(() => void read(minutes + props.every), PAUSE_MS)
}
</script>

<template>
  <details
    class="mt-4 rounded-lg border border-dashed border-line px-4 py-2"
    data-simulated-monitor
  >
    <summary class="discloses">{{ phrase('changeover.proof.simulated') }}</summary>
    <p class="mt-1 max-w-2xl text-soft">{{ phrase('changeover.proof.simulated_says') }}</p>
    <div class="mt-2 flex flex-wrap items-end gap-4">
      <label class="block">
        <span class="eyebrow mb-1 block">{{ phrase('changeover.meter.fault') }}</span>
        <select v-model="fault" class="field" data-monitor-fault>
          <option value="">{{ phrase('changeover.meter.none') }}</option>
          <option v-for="f in view.faults" :key="f.key" :value="f.key">{{ f.name }}</option>
        </select>
      </label>
      <button type="button" class="btn" data-monitor @click="running ? stop() : start()">
        <component :is="running ? Square : Play" :size="16" aria-hidden="true" />
        {{
          running
            ? phrase('changeover.proof.stop_simulated')
            : phrase('changeover.proof.start_simulated')
        }}
      </button>
    </div>
  </details>
</template>
