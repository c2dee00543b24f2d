<script setup lang="ts">
import { windowShelf } from '@/stores/shelf'
import { phrase } from '@/phrases/day'
import ProfileChart from '@/charts/ProfileChart.vue'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import FoldedSection from '@/ui/FoldedSection.vue'
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
  { key: 'table', name: phrase('day.day_stop.table'), icon: Table2 },
  { key: 'sheet', name: phrase('day.day_stop.n24_hour_sheet'), icon: ChartGantt },
]
const KEY = 'vast-harbor-day-view'
const view = ref(windowShelf.read(KEY) ?? 'table')
watch(view, (now) => windowShelf.write(KEY, now))
const day = computed(() => plan.rig!.day)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'day'))
</script>

<template>
  <div class="grid items-start gap-x-8 gap-y-4 lg:grid-cols-[1fr_27rem]">
    <div>
      <h1 class="text-3xl">{{ phrase('day.day_stop.day') }}</h1>
      <p class="mt-1 max-w-3xl text-pretty text-soft">
        {{ phrase('day.day_stop.list_every_load_kind') }}
        <template v-if="loads.length && view === 'table'">{{
          phrase('day.load_table.day_usual_uses_same')
        }}</template>
      </p>
      <p class="mt-3 text-xl" data-main>
        {{ phrase('day.day_stop.bank_supplies') }}
        <FigureLink
          :figure="day.total"
          :name="phrase('day.day_stop.day')"
          class="text-3xl font-semibold"
        />
        {{ phrase('day.day_stop.on_this_day') }}
      </p>
    </div>
    <ProfileChart v-if="loads.length && view === 'table'" />
  </div>
  <DayTypes class="mt-3" />
  <div
    v-if="loads.length"
    class="mt-3 flex gap-1"
    role="radiogroup"
    :aria-label="phrase('day.day_stop.view_day')"
  >
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
  <section class="sheet mt-2 px-4 py-2">
    <template v-if="loads.length">
      <DaySheet v-if="view === 'sheet'" />
      <LoadTable v-else />
    </template>
    <div v-else class="mx-auto max-w-lg py-8 text-center">
      <h2 class="text-xl">{{ phrase('day.day_stop.use_day') }}</h2>
      <p class="mt-1 text-soft">
        {{ phrase('day.day_stop.start_runs_longest_fridge') }}
      </p>
    </div>
    <div class="mt-2 flex flex-col gap-3 border-t border-line pt-2 sm:flex-row">
      <AppliancePicker class="grow" @pick="add" />
      <button type="button" class="btn" data-new @click="add()">
        <Plus :size="16" aria-hidden="true" /> {{ phrase('day.day_stop.add_empty_load') }}
      </button>
      <LoadCsv />
    </div>
  </section>
  <FindingList :findings="findings" class="mt-2" />
  <div class="mt-4 border-b border-line">
    <FoldedSection v-if="loads.length" name="summary" :title="phrase('day.day_summary.how_certain')"
      ><DaySummary
    /></FoldedSection>
    <FoldedSection name="inverter" :title="phrase('day.day_stop.inverter')">
      <section class="sheet grid gap-4 p-5 sm:grid-cols-2 lg:grid-cols-4">
        <PlanField
          path="/day/inverter/efficiency"
          :label="phrase('day.day_stop.inverter_efficiency')"
          :hint="phrase('day.day_stop.lie_between_0_85')"
        />
        <PlanField
          path="/day/inverter/idle_w"
          :label="phrase('day.day_stop.inverter_idle_power')"
          :hint="phrase('day.day_stop.n3_25_w_size')"
        />
        <PlanField
          path="/day/inverter/rated_w"
          :label="phrase('day.day_stop.inverter_rated_power')"
          :placeholder="phrase('day.day_stop.known')"
          :hint="phrase('day.day_stop.continuous_peak_sets_size')"
        />
        <PlanField
          path="/day/inverter/hours_on"
          :label="phrase('day.day_stop.hours_switched')"
          :placeholder="phrase('day.day_stop.needed')"
          :hint="phrase('day.day_stop.leave_empty_ac_loads')"
        />
        <p class="text-soft sm:col-span-2 lg:col-span-4">
          {{ phrase('day.day_stop.inverter_on') }} <FigureLink :figure="day.inverter_hours" />
          {{ phrase('day.day_stop.day_idle_energy') }} <FigureLink :figure="day.idle" />{{
            phrase('day.day_stop.standby_listed')
          }}
          <FigureLink :figure="day.standby" />.
        </p>
      </section>
    </FoldedSection>
  </div>
</template>
