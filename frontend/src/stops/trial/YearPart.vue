<script setup lang="ts">
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
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
  { key: 'served_share', name: 'Nights fully served' },
  { key: 'unserved', name: 'Not served' },
  { key: 'critical', name: 'of it critical' },
  { key: 'short_share', name: 'Days not returned to full' },
  { key: 'through', name: 'Taken from the bank' },
  { key: 'cycle_wear', name: 'Wear by cycles' },
  { key: 'flat', name: 'Emptied' },
  { key: 'generator_hours', name: 'Generator' },
  { key: 'litres', name: 'Fuel' },
  { key: 'fuel', name: 'Price of it' },
  { key: 'heater', name: 'Heater' },
  { key: 'sun_left', name: 'Sun not taken' },
  { key: 'bought', name: 'Charge that is bought' },
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
        {{ answer.sample }} It sets the cycles, the days short of full and the energy delivered that
        life and money reckon with.
      </p>
      <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="The year">
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
      <DepthChart :banks="answer.banks" class="mt-8" />
    </template>
  </div>
</template>
