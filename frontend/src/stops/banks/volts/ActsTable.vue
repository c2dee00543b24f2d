<script setup lang="ts">
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
    <h2 class="text-xl">Volts to act on</h2>
    <p class="max-w-3xl text-pretty text-soft">
      At
      <FigureLink :figure="answer.temperature" name="Battery temperature" class="text-ink" />, as
      old as is planned for: what the meter shows rested, and under the usual load. For the settings
      of alarm and disconnect.
    </p>
    <div
      class="relative mt-2 overflow-x-auto"
      tabindex="0"
      role="region"
      aria-label="Volts to act on"
    >
      <table class="w-full min-w-[46rem]">
        <thead>
          <tr class="text-left text-sm text-soft">
            <th class="py-1 font-semibold">Bank</th>
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
                :name="`${a.name}, under load`"
                class="text-lg font-semibold"
              />
              under load<br />
              <FigureLink :figure="a.rested" :name="`${a.name}, rested`" /> rested
              <span class="block text-sm text-soft"
                ><FigureLink :figure="a.soc" :name="`${a.name}, charge`" /> charged</span
              >
              <span v-if="a.blind" class="flex items-center gap-1 text-sm text-care">
                <EyeOff :size="14" aria-hidden="true" /> volts cannot tell it
              </span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="answer.banks.some((b) => b.flat)" class="mt-2 max-w-3xl text-pretty text-soft">
      LFP holds its volts nearly flat from about a fifth to nine tenths: set its alarm by a monitor
      that counts amp-hours, and its disconnect by volts.
    </p>
  </section>
</template>
