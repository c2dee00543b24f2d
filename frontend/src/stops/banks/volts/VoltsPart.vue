<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, type Schemas } from '@/api/client'
import { markOf } from '@/charts/sameClass'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SentenceText from '@/ui/SentenceText.vue'
import ToolField from '@/ui/ToolField.vue'
import { computed, ref } from 'vue'
import ActsTable from './ActsTable.vue'
import BankPicker from '@/ui/BankPicker.vue'
import MeterReader from '@/ui/MeterReader.vue'
import RatePictures from './RatePictures.vue'
import { useAsked } from '@/stores/useAsked'
import { useOneBank } from '@/stops/banks/useOneBank'

const plan = usePlan()
const { built } = useOneBank()
const amps = ref('')
const { answer, problem } = useAsked<Schemas['RatesView']>(
  () => amps.value,
  (signal) =>
    api.GET('/api/rigs/{rig_id}/rates', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { amps: amps.value } },
    }),
)
const hand = ref<string[]>([])

/** Two banks: those chosen by hand, else the first lead-acid and the first lithium. */
const pair = computed(() => {
  const ids = built.value.map((c) => c.id)
  const kept = hand.value.filter((id) => ids.includes(id))
  if (kept.length) return kept
  const lead = built.value.find((c) => c.battery_class !== 'lfp')
  const lithium = built.value.find((c) => c.battery_class === 'lfp')
  return [lead, lithium]
    .flatMap((c) => (c ? [c.id] : []))
    .concat(ids)
    .slice(0, 2)
})

function choose(id: string) {
  hand.value = pair.value.includes(id)
    ? pair.value.filter((p) => p !== id)
    : [...pair.value.slice(-1), id]
}
const curves = computed(() => answer.value?.curves.filter((c) => pair.value.includes(c.id)) ?? [])
</script>

<template>
  <div v-if="built.length">
    <h2 class="text-xl">{{ phrase('banks.volts_part.two_banks_deliver_limits') }}</h2>
    <p class="mb-3 max-w-3xl text-pretty text-soft">
      {{ phrase('banks.volts_part.larger_load_gets_less') }}
    </p>
    <BankPicker
      :banks="built"
      :chosen="pair"
      :label="phrase('banks.volts_part.banks_show')"
      @choose="choose"
    />
    <div class="mt-4 flex flex-wrap items-end gap-4">
      <ToolField
        v-model="amps"
        class="w-52"
        :label="phrase('banks.volts_part.steady_current')"
        unit="A"
        :hint="answer ? phrase('banks.volts_part.largest_load', { current: answer.current }) : ''"
        :problem="problem"
        data="current"
        help="volts/current"
      />
    </div>
    <ul class="mt-3 space-y-1.5">
      <li v-for="c in curves" :key="c.id" class="flex gap-2 leading-snug" :data-curve="c.id">
        <ChemistryMark
          :battery-class="c.battery_class"
          :mark="markOf(curves, c.id)"
          class="mt-0.5 shrink-0"
        />
        <p>
          <SentenceText :tokens="c.says" plain />
        </p>
      </li>
    </ul>
    <RatePictures v-if="answer && curves.length" :rates="answer" :curves="curves" class="mt-4" />
    <ActsTable class="mt-10" />
    <MeterReader class="mt-10" />
  </div>
  <p v-else class="text-soft">{{ phrase('banks.volts_part.add_bank_first_see') }}</p>
</template>
