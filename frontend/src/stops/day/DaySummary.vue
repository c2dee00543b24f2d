<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/day'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'
import { useDayTypes } from './useDayTypes'

const plan = usePlan()
const { view: day, at } = useDayTypes()
const most = computed(() =>
  Math.max(
    1,
    day.value.cautious.value ?? 0,
    day.value.measured?.value ?? 0,
    ...day.value.habits.map((h) => h.figure.value ?? 0),
  ),
)
const together = computed(() => {
  const names = day.value.peak_loads
  return names.length > 1
    ? phrase('day.day_summary.together', { peak_at: day.value.peak_at, names: names.join(', ') })
    : phrase('day.day_summary.alone', { peak_at: day.value.peak_at, names: names[0] })
})
const NAMES: Record<string, string> = {
  careful: phrase('day.day_summary.careful_people'),
  usual: phrase('day.day_summary.listed'),
  careless: phrase('day.day_summary.careless_people'),
}
const bars = computed(() => [
  ...day.value.habits.map((h) => ({ name: NAMES[h.key]!, figure: h.figure })),
  { name: phrase('day.day_summary.cautious'), figure: day.value.cautious },
  ...(day.value.measured
    ? [{ name: phrase('day.day_summary.measured_title'), figure: day.value.measured }]
    : []),
])
const bases = computed(() =>
  choicesOf('plan.day_basis', {
    likely: phrase('day.day_summary.listed_day'),
    cautious: phrase('day.day_summary.cautious_day'),
    measured: phrase('day.day_summary.measured_day'),
  }),
)
const HABITS = choicesOf('plan.habits', {
  careful: phrase('day.day_summary.careful'),
  usual: phrase('day.day_summary.usual'),
  careless: phrase('day.day_summary.careless'),
})
</script>

<template>
  <section class="sheet grid gap-x-10 gap-y-6 p-5 lg:grid-cols-[1fr_1fr]">
    <div>
      <ol class="mt-3 space-y-1.5">
        <li
          v-for="b in bars"
          :key="b.name"
          class="grid grid-cols-[8.5rem_1fr_5rem] items-center gap-2"
        >
          <span class="text-soft">{{ b.name }}</span>
          <span class="h-5 overflow-hidden rounded-sm bg-well" aria-hidden="true">
            <span
              class="block h-full rounded-sm bg-sea"
              :style="{ width: `${((b.figure.value ?? 0) / most) * 100}%` }"
            />
          </span>
          <FigureLink :figure="b.figure" :name="b.name" class="text-right font-semibold" />
        </li>
      </ol>
      <p class="mt-2 text-sm text-soft">
        {{ phrase('day.day_summary.cautious_low_high_power') }}
      </p>
      <div class="mt-4 grid gap-4 sm:grid-cols-2">
        <PlanChoice
          path="/plan/day_basis"
          :label="phrase('day.day_summary.plan')"
          :value="plan.document.plan.day_basis"
          :options="bases"
        />
        <PlanChoice
          path="/plan/habits"
          :label="phrase('day.day_summary.people_use')"
          :called="phrase('day.day_summary.habits')"
          :value="plan.document.plan.habits"
          :options="HABITS"
        />
        <PlanField
          :path="`${at}/measured_wh`"
          :label="phrase('day.day_summary.measured_such_day')"
          :placeholder="phrase('day.day_summary.measured')"
          :hint="phrase('day.day_summary.count_battery_monitor_wh')"
        />
        <PlanField
          :path="`${at}/measured_hours`"
          :label="phrase('day.day_summary.measured_over')"
        />
      </div>
    </div>
    <div>
      <h2 class="text-xl">{{ phrase('day.day_summary.highest_peak') }}</h2>
      <p class="mt-3 text-xl">
        <FigureLink
          :figure="day.peak"
          :name="phrase('day.day_summary.highest_peak_short')"
          class="text-2xl font-semibold"
        />,
        <FigureLink
          :figure="day.peak_current"
          :name="phrase('day.day_summary.current_peak')"
          class="font-semibold"
        />
        {{ phrase('day.day_summary.bank') }}
      </p>
      <p class="mt-1 text-pretty text-soft">
        <template v-if="day.peak_loads.length">{{ together }} </template>
        {{ phrase('day.day_summary.weighted_energy_day_draws') }}
        <FigureLink
          :figure="day.mean_current"
          :name="phrase('day.day_summary.mean_current')"
          class="text-ink"
        />{{ phrase('day.day_summary.mark_loads_never_run') }}
      </p>
      <h3 class="mt-5 font-sans font-semibold">
        {{ phrase('day.day_summary.hidden_standby_use') }}
      </h3>
      <p class="text-pretty text-soft">
        {{ phrase('day.day_summary.switch_everything_off_battery') }}
        <FigureLink
          :figure="day.standby"
          :name="phrase('day.day_summary.standby')"
          class="text-ink"
        />
        {{ phrase('day.day_summary.day_now')
        }}<template v-if="day.standby_left"
          >{{ phrase('day.day_summary.empty_bank') }}
          <FigureLink
            :figure="day.standby_left"
            :name="phrase('day.day_summary.days_until_empty')"
            class="text-ink" /></template
        >.
      </p>
      <PlanField
        path="/day/standby_w"
        :label="phrase('day.day_summary.monitor_reading_everything_off')"
        class="mt-2 max-w-[14rem]"
        :hint="phrase('day.day_summary.power_load_list_explains')"
      />
    </div>
  </section>
</template>
