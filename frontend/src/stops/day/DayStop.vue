<script setup lang="ts">
import ProfileChart from '@/charts/ProfileChart.vue'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import PlanField from '@/ui/PlanField.vue'
import { ChartGantt, Plus, Table2 } from '@lucide/vue'
import { computed, ref, watch } from 'vue'
import AppliancePicker from './AppliancePicker.vue'
import DaySheet from './DaySheet.vue'
import DaySummary from './DaySummary.vue'
import DayTypes from './DayTypes.vue'
import LoadCsv from './LoadCsv.vue'
import LoadTable from './LoadTable.vue'
import { useLoads } from '@/stores/useLoads'

const plan = usePlan()
const { loads, add } = useLoads()
const VIEWS = [
  { key: 'table', name: 'Table', icon: Table2 },
  { key: 'sheet', name: '24-hour sheet', icon: ChartGantt },
]
const KEY = 'vast-harbor-day-view'
const view = ref(sessionStorage.getItem(KEY) ?? 'table')
watch(view, (now) => sessionStorage.setItem(KEY, now))
const day = computed(() => plan.rig!.day)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'day'))
</script>

<template>
  <div class="grid items-start gap-x-8 gap-y-4 lg:grid-cols-[1fr_27rem]">
    <div>
      <h1 class="text-3xl">The day</h1>
      <p class="mt-1 max-w-3xl text-pretty text-soft">
        Every load, on each kind of day that you have. Write 45 W or 12 A; 6, 1h30 or 90 min; 0.35
        or 35 %.
      </p>
      <p class="mt-4 text-xl" data-main>
        The bank gives
        <FigureLink :figure="day.total" name="The day" class="text-3xl font-semibold" />
        on this day
      </p>
    </div>
    <ProfileChart v-if="loads.length && view === 'table'" />
  </div>
  <DayTypes class="mt-5" />
  <div v-if="loads.length" class="mt-5 flex gap-1" role="radiogroup" aria-label="View of the day">
    <button
      v-for="v in VIEWS"
      :key="v.key"
      type="button"
      role="radio"
      class="btn"
      :class="view === v.key ? 'btn-main' : ''"
      :aria-checked="view === v.key"
      @click="view = v.key"
    >
      <component :is="v.icon" :size="16" aria-hidden="true" /> {{ v.name }}
    </button>
  </div>
  <section class="sheet mt-3 p-4">
    <template v-if="loads.length">
      <DaySheet v-if="view === 'sheet'" />
      <LoadTable v-else />
    </template>
    <div v-else class="mx-auto max-w-lg py-8 text-center">
      <h2 class="text-xl">What runs on a day?</h2>
      <p class="mt-1 text-soft">
        Begin with what runs longest: the fridge, the heater, the lights. Pick them from the list or
        add your own with its watts.
      </p>
    </div>
    <div class="mt-3 flex flex-col gap-3 border-t border-line pt-4 sm:flex-row">
      <AppliancePicker class="grow" @pick="add" />
      <button type="button" class="btn" data-new @click="add()">
        <Plus :size="16" aria-hidden="true" /> Add an empty load
      </button>
    </div>
  </section>
  <LoadCsv class="mt-3" />
  <FindingList :findings="findings" class="mt-4" />
  <DaySummary v-if="loads.length" />
  <section class="sheet mt-6 grid gap-4 p-5 sm:grid-cols-2 lg:grid-cols-4">
    <h2 class="text-xl sm:col-span-2 lg:col-span-4">Inverter</h2>
    <PlanField
      path="/day/inverter/efficiency"
      label="Inverter efficiency"
      hint="Most lie between 0.85 and 0.94."
    />
    <PlanField
      path="/day/inverter/idle_w"
      label="Its idle draw"
      unit="W"
      hint="3 to 25 W by size, as long as it is on."
    />
    <PlanField
      path="/day/inverter/rated_w"
      label="It gives at most"
      unit="W"
      placeholder="not known"
      hint="For long, not for seconds: sizes cable and fuse."
    />
    <PlanField
      path="/day/inverter/hours_on"
      label="Hours it is switched on"
      unit="h"
      placeholder="as needed"
      hint="Empty: only while AC loads run."
    />
    <p class="text-soft sm:col-span-2 lg:col-span-4">
      Inverter on <FigureLink :figure="day.inverter_hours" /> a day, idle
      <FigureLink :figure="day.idle" />; unlisted standby <FigureLink :figure="day.standby" />.
    </p>
  </section>
</template>
