<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { api, type Schemas } from '@/api/client'
import { markOf } from '@/charts/sameClass'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed, defineAsyncComponent, ref } from 'vue'

/** How long the whole day and each load last on every bank, new and worn: a picture, and a table. */
const RunDownChart = defineAsyncComponent(() => import('./RunDownChart.vue'))
const plan = usePlan()
const { answer } = useAsked<Schemas['HowLongView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/trial/how-long', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const worn = ref(false)
const STATES = [
  { worn: false, name: phrase('trial.how_long_part.new') },
  { worn: true, name: phrase('trial.how_long_part.worn') },
]
/** The old bank is as it is, whatever is asked of the others. */
const banks = computed(() =>
  (answer.value?.banks ?? []).filter(
    (b) => b.state === 'now' || b.state === (worn.value ? 'worn' : 'new'),
  ),
)
</script>

<template>
  <div v-if="answer">
    <p class="mb-3 max-w-3xl text-pretty text-soft">
      {{ phrase('trial.how_long_part.lead', { day_name: plan.rig!.need.day_name }) }}
    </p>
    <p v-if="!answer.banks.length" class="text-soft">
      {{ phrase('trial.how_long_part.add_bank_see') }}
    </p>
    <template v-else>
      <section class="sheet p-4"><RunDownChart :answer="answer" /></section>
      <div class="mt-5 flex flex-wrap items-center gap-3">
        <h2 class="text-xl">{{ phrase('trial.how_long_part.how_long') }}</h2>
        <div class="flex" role="group" :aria-label="phrase('trial.how_long_part.state')">
          <button
            v-for="s in STATES"
            :key="s.name"
            type="button"
            class="btn first:rounded-r-none last:-ml-px last:rounded-l-none"
            :class="worn === s.worn ? 'btn-main' : ''"
            :aria-pressed="worn === s.worn"
            :data-state="s.worn ? 'worn' : 'new'"
            @click="worn = s.worn"
          >
            {{ s.name }}
          </button>
        </div>
        <p class="text-sm text-soft">{{ phrase('trial.how_long_part.alone') }}</p>
      </div>
      <div
        class="relative mt-2 overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('trial.how_long_part.how_long')"
      >
        <table class="w-full">
          <thead>
            <tr class="text-left align-bottom text-sm">
              <th class="py-1 pr-4 font-semibold text-soft">
                {{ phrase('trial.how_long_part.what') }}
              </th>
              <th v-for="b in banks" :key="b.id" class="min-w-28 pr-4 font-semibold">
                <span class="flex items-center gap-1.5 leading-tight">
                  <ChemistryMark
                    :battery-class="b.battery_class"
                    :mark="markOf(banks, b.id)"
                    class="shrink-0 scale-90"
                  />
                  {{ b.title }}
                </span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr class="border-t border-line" data-how-long="day">
              <th scope="row" class="py-1 pr-4 text-left">
                {{ phrase('trial.how_long_part.whole_day') }}
              </th>
              <td v-for="b in banks" :key="b.id" class="pr-4 text-lg font-semibold">
                {{ b.until_empty }}
              </td>
            </tr>
            <tr
              v-for="(name, i) in answer.loads"
              :key="i"
              class="border-t border-line"
              :data-how-long="name"
            >
              <th scope="row" class="py-0.5 pr-4 text-left font-normal">{{ name }}</th>
              <td v-for="b in banks" :key="b.id" class="pr-4">{{ b.runs[i] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
  <p v-else class="text-soft" role="status">{{ phrase('trial.how_long_part.calculating') }}</p>
</template>
