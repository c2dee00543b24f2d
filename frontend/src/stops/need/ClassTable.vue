<script setup lang="ts">
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
        <th>Chemistry</th>
        <th class="w-[8.5rem]">Usable depth</th>
        <th>Temperature</th>
        <th>Rate</th>
        <th>Age</th>
        <th class="text-right">Label must say</th>
        <th class="w-[34%]"><span class="sr-only">Picture</span></th>
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
        <td data-label="Usable depth">
          <AssumptionField :name="`dod.${r.battery_class}`" bare />
          <AssumptionSlider :name="`dod.${r.battery_class}`" :least="0.1" :most="1" :step="0.05" />
        </td>
        <td data-label="Temperature">
          <FigureLink :figure="r.temperature" name="Temperature factor" />
        </td>
        <td data-label="Rate"><FigureLink :figure="r.rate" name="Rate factor" /></td>
        <td data-label="Age"><FigureLink :figure="r.ageing" name="Ageing allowance" /></td>
        <td class="say" data-label="Label must say">
          <FigureLink :figure="r.nameplate_ah" name="Amp-hours" class="font-semibold" />
          <span class="block text-sm text-soft"
            ><FigureLink :figure="r.nameplate_wh" name="Energy"
          /></span>
          <span v-if="r.classical_ah" class="block text-sm whitespace-nowrap text-soft"
            >classical <FigureLink :figure="r.classical_ah" name="Classical solar method"
          /></span>
          <span v-if="r.year_wh" class="block text-sm whitespace-nowrap text-soft"
            >by the year <FigureLink :figure="r.year_wh" name="Label by a year’s weather"
          /></span>
          <span class="block text-sm whitespace-nowrap text-soft"
            >peak <FigureLink :figure="r.peak_current" name="Current at the hardest moment"
          /></span>
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
    Full colour: the usable energy that you need, the same for all. Pale: what the label must hold
    besides, because it cannot be used. Classical: what the stand-alone solar method (after IEEE
    1013) asks of lead-acid, which also limits what one ordinary day may take.
  </p>
</template>

<style scoped>
.classes {
  border-collapse: collapse;
}
.classes th,
.classes td {
  padding: 0.4rem 0.6rem 0.4rem 0;
}
.classes tbody tr {
  border-top: 1px solid var(--line);
}
.say {
  text-align: right;
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
