<script setup lang="ts">
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
    ? `At ${day.value.peak_at}, with ${names.join(', ')} at once.`
    : `At ${day.value.peak_at}, by ${names[0]} alone.`
})
const NAMES: Record<string, string> = {
  careful: 'Careful people',
  usual: 'As listed',
  careless: 'Careless people',
}
const bars = computed(() => [
  ...day.value.habits.map((h) => ({ name: NAMES[h.key]!, figure: h.figure })),
  { name: 'Cautious', figure: day.value.cautious },
  ...(day.value.measured ? [{ name: 'Measured', figure: day.value.measured }] : []),
])
const bases = computed(() => [
  { value: 'likely', name: 'the listed day' },
  { value: 'cautious', name: 'the cautious day' },
  { value: 'measured', name: 'the measured day, where there is one' },
])
const HABITS = ['careful', 'usual', 'careless'].map((value) => ({ value, name: value }))
</script>

<template>
  <section class="sheet mt-6 grid gap-x-10 gap-y-6 p-5 lg:grid-cols-[1fr_1fr]">
    <div>
      <h2 class="text-xl">How sure is it?</h2>
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
        Cautious: with the least and the most that each load may draw, nine days of ten take less.
        Careful and careless people change what is switched by hand.
      </p>
      <div class="mt-4 grid gap-4 sm:grid-cols-2">
        <PlanChoice
          path="/plan/day_basis"
          label="Plan for"
          :value="plan.document.plan.day_basis"
          :options="bases"
        />
        <PlanChoice
          path="/plan/habits"
          label="The people are"
          called="habits"
          :value="plan.document.plan.habits"
          :options="HABITS"
        />
        <PlanField
          :path="`${at}/measured_wh`"
          label="Measured on such a day"
          unit="Wh"
          placeholder="not measured"
          hint="A battery monitor’s count, Wh or Ah."
        />
        <PlanField :path="`${at}/measured_hours`" label="Over hours" unit="h" />
      </div>
    </div>
    <div>
      <h2 class="text-xl">The hardest moment</h2>
      <p class="mt-3 text-xl">
        <FigureLink :figure="day.peak" name="Hardest moment" class="text-2xl font-semibold" />,
        <FigureLink :figure="day.peak_current" name="Current then" class="font-semibold" /> at the
        bank
      </p>
      <p class="mt-1 text-pretty text-soft">
        <template v-if="day.peak_loads.length">{{ together }} </template>
        Weighted by energy the day draws
        <FigureLink :figure="day.mean_current" name="Mean current" class="text-ink" />. What may not
        run together is set in a load’s details.
      </p>
      <h3 class="mt-5 font-sans font-semibold">Standby hunt</h3>
      <p class="text-pretty text-soft">
        Switch everything off. What does the monitor still read? It is
        <FigureLink :figure="day.standby" name="Standby" class="text-ink" /> a day now<template
          v-if="day.standby_left"
          >, and would empty what you need in
          <FigureLink
            :figure="day.standby_left"
            name="Days until empty"
            class="text-ink" /></template
        >.
      </p>
      <PlanField
        path="/day/standby_w"
        label="Monitor reading, all off"
        unit="W"
        class="mt-2 max-w-[14rem]"
        hint="What is not listed as a load. Amps × volts."
      />
    </div>
  </section>
</template>
