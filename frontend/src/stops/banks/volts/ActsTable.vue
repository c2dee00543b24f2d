<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { EyeOff } from '@lucide/vue'
import { useAsked } from '@/stores/useAsked'

const plan = usePlan()
const { answer } = useAsked<Schemas['ActsView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/volts', { signal, params: { path: { rig_id: plan.rig!.id } } }),
)
</script>

<template>
  <section v-if="answer">
    <h2 class="text-xl">{{ phrase('banks.acts_table.voltage_settings') }}</h2>
    <p class="max-w-3xl text-pretty text-soft">
      {{ phrase('banks.acts_table.at') }}
      <FigureLink
        :figure="answer.temperature"
        :name="phrase('banks.acts_table.battery_temperature')"
        class="text-ink"
      />{{ phrase('banks.acts_table.planned_age_voltage_meter') }}
    </p>
    <div
      class="relative mt-2 overflow-x-auto"
      tabindex="0"
      role="region"
      :aria-label="phrase('banks.acts_table.voltage_settings')"
    >
      <table class="w-full min-w-[46rem]">
        <thead>
          <tr class="text-left text-sm text-soft">
            <th class="py-1 font-semibold">{{ phrase('banks.acts_table.bank') }}</th>
            <th v-for="a in answer.banks[0]?.acts" :key="a.key" class="pr-4 font-semibold">
              {{ a.name }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="b in answer.banks" :key="b.id" class="border-t border-line align-top">
            <th scope="row" class="py-2 pr-4 text-left font-semibold">
              <span class="flex gap-2"
                ><ChemistryMark :battery-class="b.battery_class" /> {{ b.title }}</span
              >
            </th>
            <td v-for="a in b.acts" :key="a.key" class="py-2 pr-4 leading-snug" :data-act="a.key">
              <FigureLink
                :figure="a.loaded"
                :name="phrase('banks.acts_table.under_load', { name: a.name })"
                class="text-lg font-semibold"
              />
              {{ phrase('banks.acts_table.under_load_short') }}<br />
              <FigureLink
                :figure="a.rested"
                :name="phrase('banks.acts_table.resting', { name: a.name })"
              />
              {{ phrase('banks.acts_table.resting_short') }}
              <span class="block text-sm text-soft"
                ><FigureLink
                  :figure="a.soc"
                  :name="phrase('banks.acts_table.state_charge', { name: a.name })"
                />
                {{ phrase('banks.acts_table.charged') }}</span
              >
              <span v-if="a.blind" class="flex items-center gap-1 text-sm text-caution">
                <EyeOff :size="14" aria-hidden="true" />
                {{ phrase('banks.acts_table.voltage_cannot_tell') }}
              </span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="answer.banks.some((b) => b.flat)" class="mt-2 max-w-3xl text-pretty text-soft">
      {{ phrase('banks.acts_table.voltage_lfp_hardly_changes') }}
    </p>
  </section>
</template>
