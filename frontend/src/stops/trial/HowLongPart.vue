<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { ref } from 'vue'

const plan = usePlan()
const load = ref('')
const { answer } = useAsked<Schemas['HowLongView']>(
  () => load.value,
  (signal) =>
    api.GET('/api/rigs/{rig_id}/trial/how-long', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { load: load.value } },
    }),
)
</script>

<template>
  <div v-if="answer">
    <p class="mb-3 max-w-3xl text-pretty text-soft">
      {{
        phrase('trial.how_long_part.full_six_evening_days', { day_name: plan.rig!.need.day_name })
      }}
    </p>
    <div
      class="relative overflow-x-auto"
      tabindex="0"
      role="region"
      :aria-label="phrase('trial.how_long_part.how_long')"
    >
      <table class="w-full max-w-3xl">
        <thead>
          <tr class="text-left align-bottom text-sm text-soft">
            <th class="py-1 font-semibold">{{ phrase('trial.how_long_part.bank') }}</th>
            <th class="pr-4 font-semibold">
              {{ phrase('trial.how_long_part.time_until_empty_without') }}
            </th>
            <th class="font-semibold">
              <label>
                {{ phrase('trial.how_long_part.runs') }}
                <select
                  class="field mt-1 text-base font-normal text-ink"
                  :value="answer.load"
                  data-how-long-load
                  @change="load = ($event.target as HTMLSelectElement).value"
                >
                  <option v-for="x in answer.loads" :key="x.id" :value="x.id">
                    {{ x.name }}
                  </option>
                </select>
              </label>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="l in answer.banks"
            :key="l.id"
            class="border-t border-line"
            :data-how-long="l.id"
          >
            <th scope="row" class="py-1.5 pr-4 text-left font-semibold">
              <span class="flex items-center gap-2"
                ><ChemistryMark :battery-class="l.battery_class" /> {{ l.title }}</span
              >
            </th>
            <td class="pr-4 text-lg font-semibold">{{ l.until_dark }}</td>
            <td class="text-lg">{{ l.runs }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="!answer.banks.length" class="text-soft">
      {{ phrase('trial.how_long_part.add_bank_see') }}
    </p>
  </div>
</template>
