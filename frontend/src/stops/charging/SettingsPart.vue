<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import BankPicker from '@/ui/BankPicker.vue'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import { useCharging } from './useCharging'

const plan = usePlan()
const { answer, candidate } = useCharging()
const banks = computed(() => plan.rig!.banks.candidates.filter((c) => c.figures.usable_wh))
const chosen = computed(() => answer.value?.sheets_of ?? '')
</script>

<template>
  <p class="mb-3 max-w-3xl text-pretty text-soft">
    {{ phrase('charging.settings_part.settings_bank_select_changes') }}
  </p>
  <BankPicker
    :banks="banks"
    :chosen="[chosen]"
    :label="phrase('charging.settings_part.settings')"
    class="print:hidden"
    @choose="(id) => (candidate = id)"
  />
  <div v-if="answer" class="mt-4 grid items-start gap-4 md:grid-cols-2">
    <section v-for="s in answer.sheets" :key="s.source" class="sheet p-5" :data-sheet="s.source">
      <h2 class="text-xl">{{ s.name }}</h2>
      <p v-if="s.note" class="mt-1 leading-snug text-soft">{{ s.note }}</p>
      <table v-if="s.settings.length" class="mt-2 w-full">
        <tbody>
          <tr v-for="x in s.settings" :key="x.name" class="border-t border-line align-top">
            <th scope="row" class="py-1 pr-3 text-left font-normal text-soft">{{ x.name }}</th>
            <td class="py-1 text-right font-semibold">
              {{ x.value }}
              <span v-if="x.now" class="block text-sm font-normal text-caution">{{
                phrase('charging.settings_part.now', { now: x.now })
              }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="answer.acts.length" class="sheet p-5" data-sheet="loads">
      <h2 class="text-xl">{{ phrase('charging.settings_part.loads_alarm_inverter') }}</h2>
      <table class="mt-2 w-full">
        <tbody>
          <tr v-for="x in answer.acts" :key="x.name" class="border-t border-line align-top">
            <th scope="row" class="py-1 pr-3 text-left font-normal text-soft">{{ x.name }}</th>
            <td class="py-1 text-right font-semibold">
              {{ x.value }} <span class="block text-sm font-normal text-soft">{{ x.now }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
  <p v-if="answer && !answer.sheets.length" class="mt-4 text-soft">
    {{ phrase('charging.settings_part.enter_source_see_settings') }}
  </p>
</template>
