<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import FigureLink from '@/ui/FigureLink.vue'
import PlanField from '@/ui/PlanField.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'

const plan = usePlan()
const { answer, asking } = useAsked<Schemas['LoadCostsView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/compare/loads', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const advice = computed(() => answer.value?.loads.filter((l) => l.better && l.says) ?? [])
const most = computed(() =>
  Math.max(1, ...(answer.value?.loads ?? []).map((l) => l.money.value ?? 0)),
)
</script>

<template>
  <div v-if="answer" :aria-busy="asking" data-load-costs>
    <h2 class="text-xl">{{ phrase('compare.loads_part.cheapest_watt_hour_use') }}</h2>
    <p class="max-w-3xl text-pretty text-soft">
      {{ phrase('compare.loads_part.load_costs_share_batteries', { bank: answer.bank }) }}
    </p>
    <ul v-if="advice.length" class="mt-3 space-y-1" data-advice>
      <li v-for="l in advice" :key="l.id" class="text-lg font-semibold">
        <SentenceText :tokens="l.says!" />
      </li>
    </ul>
    <div
      class="relative mt-4 overflow-x-auto"
      tabindex="0"
      role="region"
      :aria-label="phrase('compare.loads_part.load')"
    >
      <table class="w-full min-w-[58rem]">
        <thead>
          <tr class="text-left text-sm text-soft">
            <th class="w-64 py-1 pr-4 font-semibold">
              {{ phrase('compare.loads_part.load_short') }}
            </th>
            <th class="pr-4 font-semibold">{{ phrase('compare.loads_part.bank_day') }}</th>
            <th class="pr-4 font-semibold">{{ phrase('compare.loads_part.batteries') }}</th>
            <th class="pr-4 font-semibold">{{ phrase('compare.loads_part.weight') }}</th>
            <th class="pr-4 font-semibold">{{ phrase('compare.loads_part.over_years') }}</th>
            <th class="pr-4 font-semibold">
              {{ phrase('compare.loads_part.saved_quarter_less') }}
            </th>
            <th class="w-24 pr-2 font-semibold">
              {{ phrase('compare.loads_part.economical_draws') }}
            </th>
            <th class="w-28 pr-4 font-semibold">{{ phrase('compare.loads_part.costs') }}</th>
            <th class="font-semibold">{{ phrase('compare.loads_part.saves') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="l in answer.loads"
            :key="l.id"
            class="border-t border-line align-top"
            :data-load-cost="l.id"
          >
            <th scope="row" class="py-2 pr-4 text-left font-normal leading-snug">
              {{ l.name }}
              <span
                class="mt-1 block h-1.5 rounded-full bg-sea"
                :style="{ width: `${Math.max(1, ((l.money.value ?? 0) / most) * 100)}%` }"
                aria-hidden="true"
              />
              <span v-if="l.strings" class="block text-sm text-soft">
                {{ phrase('compare.loads_part.fewer_without', { count: l.strings }) }}
              </span>
            </th>
            <td class="py-2 pr-4 whitespace-nowrap"><FigureLink :figure="l.bank_wh" /></td>
            <td class="py-2 pr-4 font-semibold whitespace-nowrap">
              <FigureLink :figure="l.money" />
            </td>
            <td class="py-2 pr-4 whitespace-nowrap"><FigureLink :figure="l.kg" /></td>
            <td class="py-2 pr-4 whitespace-nowrap"><FigureLink :figure="l.kept" /></td>
            <td class="py-2 pr-4 whitespace-nowrap">
              <FigureLink v-if="l.quarter" :figure="l.quarter" />
              <span v-else class="text-soft">{{
                phrase('compare.loads_part.runs_automatically')
              }}</span>
            </td>
            <td class="py-1 pr-2">
              <PlanField
                :path="`/day/loads/${l.index}/thrifty_w`"
                :label="phrase('compare.loads_part.power_economical', { name: l.name })"
                bare
                :called="phrase('compare.loads_part.economical', { name: l.name })"
              />
            </td>
            <td class="py-1 pr-4">
              <PlanField
                :path="`/day/loads/${l.index}/thrifty_price`"
                :label="phrase('compare.loads_part.price_economical', { name: l.name })"
                bare
                :called="phrase('compare.loads_part.name_price_economical_one', { name: l.name })"
              />
            </td>
            <td class="py-2 whitespace-nowrap">
              <FigureLink
                v-if="l.saves"
                :figure="l.saves"
                :class="l.better ? 'font-semibold text-sea' : ''"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
