<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'
import SunPart from './SunPart.vue'
import { useCharging } from './useCharging'

const plan = usePlan()
const { answer } = useCharging()
const ROWS = [
  { key: 'panel_w', name: 'Panels to carry the day' },
  { key: 'refill_w', name: 'Panels to refill the need besides' },
  { key: 'recover_days', name: 'Days of sun to recover it, as it is' },
  { key: 'most_w', name: 'Most panels that suit it' },
  { key: 'charger_a', name: 'Charger to refill it in a night' },
  { key: 'generator_h', name: 'Generator to refill it' },
  { key: 'litres', name: 'Fuel for that' },
  { key: 'drive_h', name: 'Hours driven to refill it' },
]
const rows = computed(() => ROWS.filter((r) => answer.value?.needed.some((n) => n.figures[r.key])))
const WEEK = [
  { key: 'generator', name: 'Generator' },
  { key: 'litres', name: 'Fuel' },
  { key: 'fuel', name: 'Price of it' },
  { key: 'sun_left', name: 'Sun that it does not take' },
  { key: 'short', name: 'Days not returned to full' },
] as const
</script>

<template>
  <div v-if="answer">
    <SunPart :view="answer" />
    <section v-if="answer.needed.length" class="mt-8">
      <h2 class="text-xl">How much source is needed</h2>
      <p class="max-w-3xl text-pretty text-soft">
        To bring back what
        <FigureLink :figure="plan.rig!.need.energy" name="The need" class="text-ink" /> is, with the
        losses of each bank<template v-if="answer.design"
          >; panels for a mean day of {{ answer.design }}, the month of use with the least
          sun</template
        >. The reserve belongs on the array as well as on the bank.
      </p>
      <AssumptionField name="reaches_full_in" unit="days" class="mt-2 max-w-xs" />
      <div
        class="relative mt-3 overflow-x-auto"
        tabindex="0"
        role="region"
        aria-label="How much source is needed"
      >
        <table class="w-full min-w-[34rem]">
          <thead>
            <tr class="align-bottom">
              <td />
              <th
                v-for="n in answer.needed"
                :key="n.id"
                class="py-1 pr-4 text-left text-sm leading-tight font-semibold"
              >
                <ChemistryMark :battery-class="n.battery_class" class="mb-1" /><br />{{ n.title }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows" :key="r.key" class="border-t border-line" :data-needed="r.key">
              <th scope="row" class="py-1.5 pr-4 text-left font-normal">{{ r.name }}</th>
              <td v-for="n in answer.needed" :key="n.id" class="pr-4">
                <FigureLink
                  v-if="n.figures[r.key]"
                  :figure="n.figures[r.key]!"
                  :name="r.name"
                  class="font-semibold"
                />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
    <section v-if="answer.weeks.length" class="mt-8">
      <h2 class="text-xl">A mean week off-grid</h2>
      <p class="max-w-3xl text-pretty text-soft">From the year that the trial runs.</p>
      <div class="relative mt-2 overflow-x-auto" tabindex="0" role="region" aria-label="A week">
        <table class="w-full min-w-[40rem]">
          <thead>
            <tr class="text-left text-sm text-soft">
              <th class="py-1 font-semibold">Bank</th>
              <th v-for="w in WEEK" :key="w.key" class="pr-4 font-semibold">{{ w.name }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="w in answer.weeks" :key="w.id" class="border-t border-line">
              <th scope="row" class="py-1.5 pr-4 text-left font-semibold">
                <span class="flex items-center gap-2"
                  ><ChemistryMark :battery-class="w.battery_class" /> {{ w.title }}</span
                >
              </th>
              <td v-for="k in WEEK" :key="k.key" class="pr-4">{{ w[k.key] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  </div>
</template>
