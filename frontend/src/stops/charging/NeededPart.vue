<script setup lang="ts">
import { phrase } from '@/phrases/charging'
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
  { key: 'panel_w', name: phrase('charging.needed_part.panels_cover_day') },
  { key: 'refill_w', name: phrase('charging.needed_part.panels_cover_day_refill') },
  { key: 'recover_days', name: phrase('charging.needed_part.days_sun_refill_panels') },
  { key: 'most_w', name: phrase('charging.needed_part.panels_suit') },
  { key: 'charger_a', name: phrase('charging.needed_part.charger_refill_night') },
  { key: 'generator_h', name: phrase('charging.needed_part.generator_time_refill') },
  { key: 'litres', name: phrase('charging.needed_part.fuel_needed') },
  { key: 'drive_h', name: phrase('charging.needed_part.driving_hours_refill') },
]
const rows = computed(() => ROWS.filter((r) => answer.value?.needed.some((n) => n.figures[r.key])))
const WEEK = [
  { key: 'generator', name: phrase('charging.needed_part.generator') },
  { key: 'litres', name: phrase('charging.needed_part.fuel') },
  { key: 'fuel', name: phrase('charging.needed_part.fuel_cost') },
  { key: 'sun_left', name: phrase('charging.needed_part.sun_used') },
  { key: 'short', name: phrase('charging.needed_part.days_ending_short_full') },
] as const
</script>

<template>
  <div v-if="answer">
    <SunPart :view="answer" />
    <section v-if="answer.needed.length" class="mt-8">
      <h2 class="text-xl">{{ phrase('charging.needed_part.how_much_charging_need') }}</h2>
      <p class="max-w-3xl text-pretty text-soft">
        {{ phrase('charging.needed_part.replace') }}
        <FigureLink
          :figure="plan.rig!.need.energy"
          :name="phrase('charging.needed_part.need')"
          class="text-ink"
        />
        {{ phrase('charging.needed_part.losses_bank')
        }}<template v-if="answer.design">{{
          phrase('charging.needed_part.panels_average_day_least', { design: answer.design })
        }}</template
        >{{ phrase('charging.needed_part.reserve_applies_panels_well') }}
      </p>
      <AssumptionField
        name="reaches_full_in"
        :unit="phrase('charging.needed_part.days')"
        class="mt-2 max-w-xs"
      />
      <div
        class="relative mt-3 overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('charging.needed_part.how_much_charging_need')"
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
      <h2 class="text-xl">{{ phrase('charging.needed_part.average_week_off_grid') }}</h2>
      <p class="max-w-3xl text-pretty text-soft">
        {{ phrase('charging.needed_part.simulated_year') }}
      </p>
      <div
        class="relative mt-2 overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('charging.needed_part.week')"
      >
        <table class="w-full min-w-[40rem]">
          <thead>
            <tr class="text-left text-sm text-soft">
              <th class="py-1 font-semibold">{{ phrase('charging.needed_part.bank') }}</th>
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
