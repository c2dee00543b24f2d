<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { api, problemsOf, type Schemas } from '@/api/client'
import { newest } from '@/stores/newest'
import { usePlan } from '@/stores/plan'
import ToolField from '@/ui/ToolField.vue'
import { computed, reactive, ref, shallowRef, watch } from 'vue'

const plan = usePlan()
const banks = computed(() => [
  ...(plan.document.old_bank ? [{ id: 'old', name: phrase('shared.meter_reader.old_bank') }] : []),
  ...plan
    .rig!.banks.candidates.filter((c) => c.figures.usable_wh)
    .map((c) => ({ id: c.id, name: `${c.title}, ${c.layout}` })),
])
const STATES = [
  { key: 'rested', name: phrase('shared.meter_reader.rest_eight_hours') },
  { key: 'short_rest', name: phrase('shared.meter_reader.rest_two_eight_hours') },
  { key: 'just_charged', name: phrase('shared.meter_reader.just_after_charging') },
  { key: 'loaded', name: phrase('shared.meter_reader.load') },
  { key: 'charging', name: phrase('shared.meter_reader.charging') },
]
const seen = reactive({ bank: banks.value[0]?.id ?? '', volts: '', amps: '', state: 'rested' })
const answer = shallowRef<Schemas['MeterView'] | null>(null)
const problems = ref<Record<string, string>>({})

watch(
  [seen, () => plan.rig?.revision],
  async () => {
    if (!seen.volts.trim()) {
      answer.value = null
      problems.value = {}
      return
    }
    const told = await newest((signal) =>
      api.POST('/api/rigs/{rig_id}/meter', {
        signal,
        params: { path: { rig_id: plan.rig!.id } },
        body: { ...seen } as Schemas['MeterText'],
      }),
    )
    if (!told) return
    const { data, error } = told
    answer.value = data ?? null
    problems.value = data
      ? {}
      : Object.fromEntries(problemsOf(error).map((p) => [p.path.slice(1), p.message]))
  },
  { deep: true },
)
const low = computed(() => (answer.value?.low ?? 0) * 100)
const high = computed(() => (answer.value?.high ?? 1) * 100)
</script>

<template>
  <section class="sheet grid gap-6 p-5 md:grid-cols-2" data-meter>
    <div>
      <h2 class="text-xl">{{ phrase('shared.meter_reader.read_voltmeter') }}</h2>
      <p class="text-pretty text-soft">
        {{ phrase('shared.meter_reader.voltage_reading_mean_why') }}
      </p>
      <div class="mt-3 grid grid-cols-2 gap-3">
        <label class="col-span-2">
          <span class="eyebrow mb-1 block">{{ phrase('shared.meter_reader.bank') }}</span>
          <select v-model="seen.bank" class="field" data-meter-bank>
            <option v-for="b in banks" :key="b.id" :value="b.id">{{ b.name }}</option>
          </select>
        </label>
        <label class="col-span-2">
          <span class="eyebrow mb-1 block">{{ phrase('shared.meter_reader.state') }}</span>
          <select v-model="seen.state" class="field" data-meter-state>
            <option v-for="s in STATES" :key="s.key" :value="s.key">{{ s.name }}</option>
          </select>
        </label>
        <ToolField
          v-model="seen.volts"
          :label="phrase('shared.meter_reader.voltage')"
          unit="V"
          :problem="problems.volts"
          data="volts"
          help="meter/volts"
        />
        <ToolField
          v-if="seen.state === 'loaded'"
          v-model="seen.amps"
          :label="phrase('shared.meter_reader.current')"
          unit="A"
          :problem="problems.amps"
          data="amps"
          help="meter/amps"
        />
      </div>
    </div>
    <div aria-live="polite" data-meter-says>
      <template v-if="answer">
        <p class="text-2xl font-semibold">
          {{ answer.text || phrase('shared.meter_reader.voltage_tells_nothing_now') }}
        </p>
        <div v-if="answer.text" class="relative mt-3 h-4 rounded bg-line" aria-hidden="true">
          <span
            class="absolute inset-y-0 rounded bg-sea"
            :style="{ left: `${low}%`, width: `${Math.max(1.5, high - low)}%` }"
          />
        </div>
        <p v-if="answer.text" class="flex justify-between text-sm text-soft" aria-hidden="true">
          <span>{{ phrase('shared.meter_reader.empty') }}</span><span>{{
            phrase('shared.meter_reader.full')
          }}</span>
        </p>
        <ul class="mt-2 space-y-1.5">
          <li v-for="w in answer.why" :key="w" class="border-l-2 border-caution pl-3 leading-snug">
            {{ w }}
          </li>
        </ul>
      </template>
      <p v-else class="text-soft">{{ phrase('shared.meter_reader.enter_voltage_meter') }}</p>
    </div>
  </section>
</template>
