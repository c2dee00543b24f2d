<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { numberOf } from '@/charts/sameClass'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

const props = defineProps<{ banks: Schemas['BankRunView'][]; drawn: string[] }>()
defineEmits<{ choose: [id: string] }>()
const ROWS = [
  { key: 'first_dark', name: 'First dark' },
  { key: 'nights_served', name: 'Nights fully served' },
  { key: 'unserved', name: 'Not served' },
  { key: 'lowest', name: 'Lowest charge' },
  { key: 'days_short', name: 'Days not full' },
  { key: 'resets', name: 'Switched off' },
  { key: 'unaccepted', name: 'Charge not taken' },
  { key: 'generator_hours', name: 'Generator' },
  { key: 'low_hours', name: 'Volts too low' },
  { key: 'heater', name: 'Heater' },
]
/** A row that is nothing for every bank is left out. */
const rows = computed(() =>
  ROWS.filter((r, i) => i < 7 || props.banks.some((l) => (l.figures[r.key]?.value ?? 0) > 0)),
)
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="How the banks did">
    <table class="w-full min-w-[56rem] text-[0.95rem]">
      <thead>
        <tr class="text-left text-sm text-soft">
          <th class="py-1 font-semibold">Bank</th>
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
              :title="drawn.includes(l.id) ? 'Drawn' : 'Draw it'"
              :data-draw="l.id"
              @click="$emit('choose', l.id)"
            >
              <ChemistryMark :battery-class="l.battery_class" />
              <span class="leading-tight">{{ numberOf(banks, l.id) }} {{ l.title }}</span>
            </button>
          </th>
          <td
            v-for="r in rows"
            :key="r.key"
            class="pr-3"
            :class="
              r.key === 'first_dark' && l.figures[r.key]?.value !== null
                ? 'font-semibold text-stop'
                : ''
            "
          >
            <template v-if="r.key === 'first_dark' && l.figures[r.key]?.value === null"
              >never</template
            >
            <FigureLink v-else-if="l.figures[r.key]" :figure="l.figures[r.key]!" :name="r.name" />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
