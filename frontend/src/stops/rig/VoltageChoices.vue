<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import FoldedFields from '@/ui/FoldedFields.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

const plan = usePlan()
const choices = computed(() => plan.rig!.voltages)
</script>

<template>
  <section class="sheet px-5 py-3" data-voltages>
    <FoldedFields :title="phrase('rig.voltage_choices.higher_voltage_better')">
      <p class="mt-1 text-pretty text-soft">
        {{ phrase('rig.voltage_choices.watt_hours_stay_same') }}
      </p>
      <div class="relative mt-3 overflow-x-auto">
        <table class="volts w-full min-w-[30rem]">
          <thead>
            <tr class="text-left text-sm text-soft">
              <th>
                <span class="sr-only">{{ phrase('rig.voltage_choices.figure') }}</span>
              </th>
              <th v-for="c in choices" :key="c.system_v" :class="c.here ? 'text-sea' : ''">
                {{ c.system_v }} V{{ c.here ? phrase('rig.voltage_choices.now') : '' }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">{{ phrase('rig.voltage_choices.highest_main_current') }}</th>
              <td v-for="c in choices" :key="c.system_v">
                <FigureLink
                  :figure="c.peak"
                  :name="phrase('rig.voltage_choices.main_current')"
                  class="font-semibold"
                />
              </td>
            </tr>
            <tr>
              <th scope="row">{{ phrase('rig.voltage_choices.main_cable') }}</th>
              <td v-for="c in choices" :key="c.system_v">
                <FigureLink :figure="c.cable" :name="phrase('rig.voltage_choices.main_cable')" />
              </td>
            </tr>
            <tr>
              <th scope="row">{{ phrase('rig.voltage_choices.converter_losses_day') }}</th>
              <td v-for="c in choices" :key="c.system_v">
                <FigureLink
                  :figure="c.lost"
                  :name="phrase('rig.voltage_choices.converter_losses')"
                />
              </td>
            </tr>
            <tr>
              <th scope="row">{{ phrase('rig.voltage_choices.usable_energy_needed') }}</th>
              <td v-for="c in choices" :key="c.system_v">
                <FigureLink :figure="c.need" :name="phrase('rig.voltage_choices.need')" />
              </td>
            </tr>
            <tr>
              <th scope="row">{{ phrase('rig.voltage_choices.rated_capacity_needed_agm') }}</th>
              <td v-for="c in choices" :key="c.system_v">
                <FigureLink
                  v-for="(l, i) in c.labels"
                  :key="i"
                  :figure="l"
                  :name="phrase('rig.voltage_choices.rated_capacity')"
                  class="mr-2"
                />
              </td>
            </tr>
            <tr class="align-top">
              <th scope="row">{{ phrase('rig.voltage_choices.replace_add') }}</th>
              <td v-for="c in choices" :key="c.system_v" class="text-sm leading-snug">
                <ul v-if="c.replaced.length" class="list-disc pl-4">
                  <li v-for="r in c.replaced" :key="r">{{ r }}</li>
                </ul>
                <template v-else>{{ phrase('rig.voltage_choices.nothing') }}</template>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <AssumptionField
        name="main_cable_m"
        :label="phrase('rig.voltage_choices.main_cable_way')"
        class="mt-3 max-w-[14rem]"
      />
    </FoldedFields>
  </section>
</template>

<style scoped>
.volts {
  border-collapse: collapse;
  table-layout: fixed;
}
.volts th,
.volts td {
  padding: 0.35rem 0.6rem 0.35rem 0;
  text-align: left;
}
.volts tbody th {
  font-weight: 400;
  color: var(--soft);
}
.volts tbody tr {
  border-top: 1px solid var(--line);
}
</style>
