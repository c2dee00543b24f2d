<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

const plan = usePlan()
const choices = computed(() => plan.rig!.voltages)
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">Would more volts be better?</h2>
    <p class="mt-1 text-pretty text-soft">
      The watt-hours stay the same; amps, cable and amp-hours shrink. What runs on the old volts
      needs a converter, and some of it cannot have one.
    </p>
    <div class="relative mt-3 overflow-x-auto">
      <table class="volts w-full min-w-[30rem]">
        <thead>
          <tr class="text-left text-sm text-soft">
            <th><span class="sr-only">Figure</span></th>
            <th v-for="c in choices" :key="c.system_v" :class="c.here ? 'text-sea' : ''">
              {{ c.system_v }} V{{ c.here ? ', as now' : '' }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">Main current, at most</th>
            <td v-for="c in choices" :key="c.system_v">
              <FigureLink :figure="c.peak" name="Main current" class="font-semibold" />
            </td>
          </tr>
          <tr>
            <th scope="row">Main cable</th>
            <td v-for="c in choices" :key="c.system_v">
              <FigureLink :figure="c.cable" name="Main cable" />
            </td>
          </tr>
          <tr>
            <th scope="row">Lost in converters a day</th>
            <td v-for="c in choices" :key="c.system_v">
              <FigureLink :figure="c.lost" name="Lost in converters" />
            </td>
          </tr>
          <tr>
            <th scope="row">Usable energy needed</th>
            <td v-for="c in choices" :key="c.system_v">
              <FigureLink :figure="c.need" name="Need" />
            </td>
          </tr>
          <tr>
            <th scope="row">On the label, AGM / LFP</th>
            <td v-for="c in choices" :key="c.system_v">
              <FigureLink
                v-for="(l, i) in c.labels"
                :key="i"
                :figure="l"
                name="Label"
                class="mr-2"
              />
            </td>
          </tr>
          <tr class="align-top">
            <th scope="row">To be replaced or added</th>
            <td v-for="c in choices" :key="c.system_v" class="text-sm leading-snug">
              <ul v-if="c.replaced.length" class="list-disc pl-4">
                <li v-for="r in c.replaced" :key="r">{{ r }}</li>
              </ul>
              <template v-else>nothing</template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <AssumptionField name="main_cable_m" label="Main cable, one way" class="mt-3 max-w-[14rem]" />
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
