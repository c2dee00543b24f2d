<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed, defineAsyncComponent } from 'vue'

const DepthChart = defineAsyncComponent(() => import('./DepthChart.vue'))
const plan = usePlan()
const { answer } = useAsked<Schemas['YearView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/trial/year', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const ROWS = [
  { key: 'served_share', name: phrase('trial.year_part.nights_fully_supplied') },
  { key: 'unserved', name: phrase('trial.year_part.energy_supplied') },
  { key: 'critical', name: phrase('trial.year_part.critical') },
  { key: 'short_share', name: phrase('trial.year_part.days_ending_short_full') },
  { key: 'through', name: phrase('trial.year_part.taken_bank') },
  { key: 'cycle_wear', name: phrase('trial.year_part.wear_cycles') },
  { key: 'flat', name: phrase('trial.year_part.times_emptied') },
  { key: 'generator_hours', name: phrase('trial.year_part.generator') },
  { key: 'litres', name: phrase('trial.year_part.fuel') },
  { key: 'fuel', name: phrase('trial.year_part.fuel_cost') },
  { key: 'heater', name: phrase('trial.year_part.heater') },
  { key: 'sun_left', name: phrase('trial.year_part.sun_used') },
  { key: 'bought', name: phrase('trial.year_part.charge_pay') },
]
const rows = computed(() =>
  ROWS.filter((r, i) => i < 7 || answer.value?.banks.some((l) => l.figures[r.key]?.value)),
)
</script>

<template>
  <div v-if="answer">
    <p v-if="answer.says" class="max-w-3xl text-soft">{{ answer.says }}</p>
    <template v-else>
      <p class="mb-3 max-w-3xl text-pretty text-soft">
        {{ phrase('trial.year_part.gives_cycles_days_short', { sample: answer.sample }) }}
      </p>
      <div
        class="relative overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('trial.year_part.year')"
      >
        <table class="w-full min-w-[36rem]">
          <thead>
            <tr class="align-bottom">
              <td />
              <th
                v-for="l in answer.banks"
                :key="l.id"
                class="py-1 pr-4 text-left text-sm leading-tight font-semibold"
              >
                <ChemistryMark :battery-class="l.battery_class" class="mb-1" /><br />{{ l.title }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows" :key="r.key" class="border-t border-line" :data-year="r.key">
              <th scope="row" class="py-1.5 pr-4 text-left font-normal">{{ r.name }}</th>
              <td v-for="l in answer.banks" :key="l.id" class="pr-4 whitespace-nowrap">
                <FigureLink
                  v-if="l.figures[r.key]"
                  :figure="l.figures[r.key]!"
                  :name="r.name"
                  :class="r.key === 'served_share' ? 'text-lg font-semibold' : ''"
                />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="answer.unequal.length" class="mt-4 max-w-3xl text-pretty" data-unequal>
        <SentenceText :tokens="answer.unequal" />
      </p>
      <DepthChart :banks="answer.banks" class="mt-8" />
    </template>
  </div>
</template>
