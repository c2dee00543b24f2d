<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed } from 'vue'

const plan = usePlan()
const { answer } = useAsked<Schemas['LaidUpView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/trial/laid-up', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const HEAD = [
  phrase('trial.laid_up_part.bank'),
  phrase('trial.laid_up_part.lasts'),
  phrase('trial.laid_up_part.recharge'),
  phrase('trial.laid_up_part.lowest'),
  phrase('trial.laid_up_part.charged_too_cold'),
  phrase('trial.laid_up_part.near_freezing'),
]
const parts = computed(() => [
  {
    name: phrase('trial.laid_up_part.left_connected'),
    says: phrase('trial.laid_up_part.connected_devices_alarms_bms'),
    rows: answer.value?.rows.filter((r) => r.connected) ?? [],
  },
  {
    name: phrase('trial.laid_up_part.disconnected'),
    says: phrase('trial.laid_up_part.self_discharge_remains'),
    rows: answer.value?.rows.filter((r) => !r.connected) ?? [],
  },
])
</script>

<template>
  <div v-if="answer">
    <p class="mb-3 max-w-3xl text-pretty text-soft">{{ answer.says }}</p>
    <template v-if="answer.rows.length">
      <section v-for="p in parts" :key="p.name" class="mb-6">
        <h2 class="text-xl">{{ p.name }}</h2>
        <p class="text-soft">{{ p.says }}</p>
        <div class="relative mt-1 overflow-x-auto" tabindex="0" role="region" :aria-label="p.name">
          <table class="w-full min-w-[44rem]">
            <thead>
              <tr class="text-left text-sm text-soft">
                <th v-for="h in HEAD" :key="h" class="py-1 pr-4 font-semibold">{{ h }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in p.rows" :key="r.id" class="border-t border-line" :data-laid-up="r.id">
                <th scope="row" class="py-1.5 pr-4 text-left font-semibold">
                  <span class="flex items-center gap-2"
                    ><ChemistryMark :battery-class="r.battery_class" /> {{ r.title }}</span
                  >
                </th>
                <td :class="r.lasts === 'lasts' ? '' : 'font-semibold text-blocking'">
                  {{ r.lasts }}
                </td>
                <td>{{ r.recharge || phrase('trial.laid_up_part.needed') }}</td>
                <td>{{ r.lowest }}</td>
                <td :class="r.cold ? 'text-caution' : 'text-soft'">{{ r.cold || 'no' }}</td>
                <td :class="r.frost ? 'font-semibold text-blocking' : 'text-soft'">
                  {{ r.frost || 'no' }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <p class="max-w-3xl text-sm text-soft">
        {{ phrase('trial.laid_up_part.discharged_flooded_battery_freeze') }}
      </p>
    </template>
  </div>
</template>
