<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { PAGE } from '@/stores/useWindow'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed, onBeforeUnmount, ref, watch } from 'vue'

interface BankOdds {
  id: string
  title: string
  battery_class: string
  dark: string
  share: number
}
interface Told {
  done: number
  of: number
  banks: BankOdds[]
}
const WEATHERS = 100
const plan = usePlan()
const ui = useUi()
const told = ref<Told | null>(null)
const running = ref(false)
let stream: EventSource | null = null

function stop() {
  stream?.close()
  stream = null
  running.value = false
}

function start() {
  stop()
  told.value = null
  running.value = true
  stream = new EventSource(`/api/rigs/${plan.rig!.id}/trial/odds?weathers=${WEATHERS}&page=${PAGE}`)
  stream.onmessage = (event) => {
    told.value = JSON.parse(event.data)
    if (told.value!.done >= told.value!.of) stop()
  }
  stream.onerror = () => {
    if (stream?.readyState === EventSource.CLOSED) {
      ui.say(phrase('trial.odds_tool.simulation_already_running_perhaps'))
    }
    stop()
  }
}
const share = computed(() => (told.value ? (told.value.done / told.value.of) * 100 : 0))
watch(
  () => plan.rig?.revision,
  () => {
    stop()
    told.value = null
  },
)
onBeforeUnmount(stop)
</script>

<template>
  <section data-odds>
    <p class="max-w-3xl text-pretty text-soft">
      {{ phrase('trial.odds_tool.weather_proves_little_simulate', { WEATHERS }) }}
    </p>
    <div class="mt-2 flex items-center gap-3">
      <button v-if="!running" type="button" class="btn" @click="start">
        {{ phrase('trial.odds_tool.simulate_weathers', { WEATHERS }) }}
      </button>
      <template v-else>
        <button type="button" class="btn" @click="stop">
          {{ phrase('trial.odds_tool.cancel') }}
        </button>
        <progress
          class="h-2 w-56 accent-sea"
          max="100"
          :value="share"
          :aria-label="phrase('trial.odds_tool.weathers_simulated')"
        />
        <span class="text-soft">{{
          phrase('trial.odds_tool.of', { done: told?.done ?? 0, WEATHERS })
        }}</span>
      </template>
    </div>
    <ul v-if="told" class="mt-3 max-w-2xl space-y-1.5" aria-live="polite">
      <li
        v-for="l in told.banks"
        :key="l.id"
        class="grid grid-cols-[1.8rem_1fr_7rem] items-center gap-2"
        :data-odds-bank="l.id"
      >
        <ChemistryMark :battery-class="l.battery_class" class="scale-90" />
        <span class="relative overflow-hidden rounded bg-well px-2 py-0.5">
          <span
            class="absolute inset-y-0 left-0 bg-blocking opacity-20"
            :style="{ width: `${l.share * 100}%` }"
            aria-hidden="true"
          />
          <span class="relative">{{ l.title }}</span>
        </span>
        <span
          ><b class="font-semibold">{{
            l.share
              ? phrase('trial.odds_tool.power_cut', { dark: l.dark })
              : phrase('trial.odds_tool.no_power_cut')
          }}</b></span
        >
      </li>
    </ul>
  </section>
</template>
