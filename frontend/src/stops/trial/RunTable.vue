<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import type { Schemas } from '@/api/client'
import { markOf } from '@/charts/sameClass'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

const props = defineProps<{ banks: Schemas['BankRunView'][]; drawn: string[] }>()
defineEmits<{ choose: [id: string] }>()
const ROWS = [
  { key: 'first_dark', name: phrase('trial.run_table.first_power_cut') },
  { key: 'nights_served', name: phrase('trial.run_table.nights_fully_supplied') },
  { key: 'unserved', name: phrase('trial.run_table.energy_supplied') },
  { key: 'lowest', name: phrase('trial.run_table.lowest_state_charge') },
  { key: 'days_short', name: phrase('trial.run_table.days_ending_short_full') },
  { key: 'resets', name: phrase('trial.run_table.cut_offs') },
  { key: 'spare', name: phrase('trial.run_table.spare') },
  { key: 'missed', name: phrase('trial.run_table.missed') },
  { key: 'generator_hours', name: phrase('trial.run_table.generator') },
  { key: 'low_hours', name: phrase('trial.run_table.time_low_voltage') },
  { key: 'heater', name: phrase('trial.run_table.heater') },
]
const LEAST = 0.004
/** A row that is nothing for every bank is left out. */
const rows = computed(() =>
  ROWS.filter((r, i) => i < 6 || props.banks.some((l) => (l.figures[r.key]?.value ?? 0) > LEAST)),
)
</script>

<template>
  <div
    class="relative overflow-x-auto"
    tabindex="0"
    role="region"
    :aria-label="phrase('trial.run_table.results_banks')"
  >
    <table class="w-full min-w-[56rem] text-[0.95rem]">
      <thead>
        <tr class="text-left text-sm text-soft">
          <th class="py-1 font-semibold">{{ phrase('trial.run_table.bank') }}</th>
          <th v-for="r in rows" :key="r.key" class="pr-3 font-semibold">{{ r.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in banks" :key="l.id" class="border-t border-line" :data-bank="l.id">
          <th scope="row" class="py-1.5 pr-3 text-left font-semibold">
            <button
              type="button"
              class="flex items-center gap-2 rounded-md px-1 text-left hover:bg-wash"
              :class="drawn.includes(l.id) ? 'bg-wash' : ''"
              :aria-pressed="drawn.includes(l.id)"
              :title="
                drawn.includes(l.id)
                  ? phrase('trial.run_table.shown_chart')
                  : phrase('trial.run_table.show_chart')
              "
              :data-draw="l.id"
              @click="$emit('choose', l.id)"
            >
              <ChemistryMark :battery-class="l.battery_class" :mark="markOf(banks, l.id)" />
              <span class="leading-tight">{{ l.title }}</span>
            </button>
          </th>
          <td
            v-for="r in rows"
            :key="r.key"
            class="pr-3"
            :class="
              r.key === 'first_dark' && l.figures[r.key]?.value !== null
                ? 'font-semibold text-blocking'
                : ''
            "
          >
            <template v-if="r.key === 'first_dark' && l.figures[r.key]?.value === null">{{
              phrase('trial.run_table.never')
            }}</template>
            <FigureLink v-else-if="l.figures[r.key]" :figure="l.figures[r.key]!" :name="r.name" />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
