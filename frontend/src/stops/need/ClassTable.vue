<script setup lang="ts">
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import AssumptionField from '@/ui/AssumptionField.vue'
import AssumptionSlider from '@/ui/AssumptionSlider.vue'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

const plan = usePlan()
const reference = useReference()
const rows = computed(() => plan.rig!.need.classes)
const most = computed(() => Math.max(1, ...rows.value.map((r) => r.nameplate_wh.value ?? 0)))
</script>

<template>
  <table class="classes w-full">
    <thead>
      <tr class="text-left text-sm text-soft">
        <th>{{ phrase('need.class_table.chemistry') }}</th>
        <th class="w-[10.5rem]">{{ phrase('need.class_table.usable_depth') }}</th>
        <th>{{ phrase('need.class_table.temperature') }}</th>
        <th>{{ phrase('need.class_table.discharge_rate') }}</th>
        <th>{{ phrase('need.class_table.age') }}</th>
        <th class="text-right">{{ phrase('need.class_table.rated_capacity_needed') }}</th>
        <th class="w-[24%]">
          <span class="sr-only">{{ phrase('need.class_table.picture') }}</span>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="r in rows" :key="r.battery_class" :data-class="r.battery_class">
        <th scope="row" class="text-left font-semibold">
          <span class="flex items-center gap-2">
            <ChemistryMark :battery-class="r.battery_class" />
            <span class="leading-tight">{{ reference.classes.get(r.battery_class)?.name }}</span>
          </span>
        </th>
        <td :data-label="phrase('need.class_table.usable_depth')">
          <div class="items-center gap-2 md:grid md:grid-cols-2">
            <AssumptionField :name="`dod.${r.battery_class}`" bare />
            <AssumptionSlider
              :name="`dod.${r.battery_class}`"
              :least="0.1"
              :most="1"
              :step="0.05"
            />
          </div>
        </td>
        <td :data-label="phrase('need.class_table.temperature')">
          <FigureLink
            :figure="r.temperature"
            :name="phrase('need.class_table.temperature_factor')"
          />
        </td>
        <td :data-label="phrase('need.class_table.discharge_rate')">
          <FigureLink :figure="r.rate" :name="phrase('need.class_table.rate_factor')" />
        </td>
        <td :data-label="phrase('need.class_table.age')">
          <FigureLink :figure="r.ageing" :name="phrase('need.class_table.ageing_allowance')" />
        </td>
        <td class="say" :data-label="phrase('need.class_table.rated_capacity_needed')">
          <FigureLink
            :figure="r.nameplate_ah"
            :name="phrase('need.class_table.amp_hours')"
            class="font-semibold"
          />
          <span class="text-soft">
            ·
            <FigureLink :figure="r.nameplate_wh" :name="phrase('need.class_table.energy')"
          /></span>
          <span class="block text-sm text-soft max-md:block"
            ><span v-if="r.classical_ah" class="lesser"
              >{{ phrase('need.class_table.classical') }}
              <FigureLink
                :figure="r.classical_ah"
                :name="phrase('need.class_table.classical_solar_method')"
            /></span>
            <span v-if="r.year_wh" class="lesser"
              >{{ phrase('need.class_table.year_weather') }}
              <FigureLink
                :figure="r.year_wh"
                :name="phrase('need.class_table.rated_capacity_year_weather')"
            /></span>
            <span class="lesser"
              >{{ phrase('need.class_table.peak') }}
              <FigureLink
                :figure="r.peak_current"
                :name="phrase('need.class_table.highest_peak_current')" /></span
          ></span>
        </td>
        <td class="bar" aria-hidden="true">
          <span class="relative block h-7 overflow-hidden rounded-sm bg-line">
            <span
              class="absolute inset-y-0 left-0"
              :style="{
                width: `${((r.nameplate_wh.value ?? 0) / most) * 100}%`,
                background: `color-mix(in oklab, var(--chem-${r.battery_class}) 35%, var(--sheet))`,
              }"
            />
            <span
              class="absolute inset-y-0 left-0"
              :style="{
                width: `${((plan.rig!.need.energy.value ?? 0) / most) * 100}%`,
                background: `var(--chem-${r.battery_class})`,
              }"
            />
          </span>
        </td>
      </tr>
    </tbody>
  </table>
  <p class="mt-2 text-sm text-soft">
    {{ phrase('need.class_table.full_colour_usable_energy') }}
  </p>
</template>

<style scoped>
.classes {
  border-collapse: collapse;
}
.classes th,
.classes td {
  padding: 0.2rem 0.6rem 0.2rem 0;
}
.classes tbody tr {
  border-top: 1px solid var(--line);
}
.say {
  text-align: right;
}
@media (min-width: 1100px) {
  .lesser {
    white-space: nowrap;
  }
}
.lesser + .lesser::before {
  content: ' · ';
}
.classes td > a,
.classes td > button {
  white-space: nowrap;
}
.bar {
  padding-left: 0.8rem !important;
}
@media (max-width: 767px) {
  .classes,
  .classes tbody {
    display: block;
  }
  .classes thead {
    display: none;
  }
  .classes tbody tr {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 0.3rem 0.75rem;
    padding: 0.8rem 0;
  }
  .classes th,
  .classes td {
    padding: 0;
  }
  .classes th,
  .bar {
    grid-column: span 3;
    padding-left: 0 !important;
  }
  .say {
    grid-column: span 2;
    text-align: left;
  }
  .classes td[data-label]::before {
    content: attr(data-label);
    display: block;
    font-size: 0.8125rem;
    font-weight: 600;
    color: var(--soft);
  }
}
</style>
