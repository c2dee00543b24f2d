<script setup lang="ts">
import { phrase } from '@/phrases/day'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import IconButton from '@/ui/IconButton.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import InterpretationList from '@/ui/InterpretationList.vue'
import { ChevronDown, ChevronUp, SlidersHorizontal, Trash2 } from '@lucide/vue'
import { computed, ref } from 'vue'
import LoadDetails from './LoadDetails.vue'
import LoadTimes from './LoadTimes.vue'
import type { Load } from '@/api/rigFile'
import { useLoads, type OnDay } from '@/stores/useLoads'

const plan = usePlan()
const props = defineProps<{ load: Load; index: number; figures?: Schemas['LoadView'] }>()
defineEmits<{ remove: [] }>()
const { onDay, timesOf, timesPath, setOnDay } = useLoads()

const NOTHING: { path: string; key: string; field: string; message: string }[] = []
const open = ref(false)
/** On a phone a load is a line of name and energy until it is opened. */
const unfolded = ref(props.figures?.runs !== false && !props.figures?.wh.value)
const at = computed(() => `/day/loads/${props.index}`)
const times = computed(() => timesOf(props.load))
const timesAt = computed(() => timesPath(props.load, props.index))
const day = computed(() => onDay(props.load))
const called = (what: string) => `${props.load.name}: ${what}`
const problemsAt = computed(() => `problems-${props.load.id}`)
const problems = computed(() => {
  const names: Record<string, string> = {
    starts_at: 'from',
    quantity: phrase('day.load_row.how_many_short'),
    low: phrase('day.load_row.least'),
    high: phrase('day.load_row.at_most'),
    start_w: phrase('day.load_row.starts'),
  }
  const wrong = Object.entries(plan.drafts).filter(
    ([path, draft]) => path.startsWith(`${at.value}/`) && draft.message,
  )
  // The same nothing as before: every row looks at what is typed into any, and is not drawn again for it.
  if (!wrong.length) return NOTHING
  return wrong
    .map(([path, draft]) => {
      const field = path.slice(path.lastIndexOf('/') + 1)
      return { path, key: field, field: names[field] ?? field, message: draft.message }
    })
    .filter((p) => !open.value || !DETAILS.has(p.key))
})
/** Fields whose problems stand at them while the row is open. */
const DETAILS = new Set(['low', 'high', 'start_w', 'start_s', 'measured_wh', 'measured_hours'])
const share = computed(() => Math.round((props.figures?.share.value ?? 0) * 100))
const marks = computed(() =>
  [
    props.figures?.measured && phrase('day.load_row.measured'),
    props.load.critical && phrase('day.load_row.critical'),
    !props.load.together && phrase('day.load_row.runs_alone'),
    plan.document.second_bank && props.load.bank === 'second' && phrase('day.load_row.second_bank'),
  ].filter(Boolean),
)
const ON_DAY = [
  { value: 'usual', name: phrase('day.load_row.usual') },
  { value: 'own', name: phrase('day.load_row.own') },
  { value: 'off', name: phrase('day.load_row.off') },
]

function choose(event: Event) {
  setOnDay(props.load, props.index, (event.target as HTMLSelectElement).value as OnDay)
}
</script>

<template>
  <tr
    class="load align-top"
    :class="{ off: figures?.runs === false, folded: !unfolded && !problems.length }"
    :data-load="load.id"
  >
    <td class="name">
      <PlanField
        :path="`${at}/name`"
        :label="phrase('day.load_row.name')"
        text
        bare
        :called="called(phrase('day.load_row.edit_name'))"
        :problems-at="problemsAt"
      />
      <p v-if="marks.length" class="px-2 text-xs leading-3.5 text-soft" data-marks>
        {{ marks.join(', ') }}
      </p>
    </td>
    <td class="supply">
      <PlanChoice
        :path="`${at}/supply`"
        :label="phrase('day.load_row.supply', { name: load.name })"
        bare
        :value="load.supply"
        :called="called(phrase('day.load_row.edit_supply'))"
        :options="[
          { value: 'dc', name: 'DC' },
          { value: 'ac', name: 'AC' },
        ]"
      />
    </td>
    <td class="draw" :data-label="phrase('day.load_row.power')">
      <PlanField
        :path="`${at}/draw`"
        :label="phrase('day.load_row.power_w', { name: load.name })"
        bare
        :called="called(phrase('day.load_row.edit_draw'))"
        :problems-at="problemsAt"
      />
    </td>
    <td class="count" :data-label="phrase('day.load_row.how_many')">
      <PlanField
        :path="`${at}/quantity`"
        :label="phrase('day.load_row.how_many_name', { name: load.name })"
        bare
        :called="called(phrase('day.load_row.edit_number'))"
        :problems-at="problemsAt"
      />
    </td>
    <td class="on" :data-label="phrase('day.load_row.day')">
      <label>
        <span class="sr-only">{{ phrase('day.load_row.name_day', { name: load.name }) }}</span>
        <select class="field" data-on-day @change="choose">
          <option v-for="o in ON_DAY" :key="o.value" :value="o.value" :selected="o.value === day">
            {{ o.name }}
          </option>
        </select>
      </label>
    </td>
    <td class="use" :data-label="phrase('day.load_row.use')">
      <p v-if="day === 'off'" class="px-1 py-1.5 text-soft">{{ phrase('day.load_row.run') }}</p>
      <p v-else-if="figures?.runs === false" class="px-1 py-1.5 text-soft">
        {{ phrase('day.load_row.off_while_nobody') }}
      </p>
      <LoadTimes v-else :at="timesAt" :name="load.name" :times="times" :problems-at="problemsAt" />
    </td>
    <td class="duty" :data-label="phrase('day.load_row.duty_cycle_short')">
      <p
        v-if="figures?.duty"
        class="px-1 py-1.5 text-soft"
        :title="phrase('day.load_row.duty_cycle_depends_weather')"
      >
        {{ figures.duty }}
      </p>
      <PlanField
        v-else
        :path="`${at}/duty`"
        :label="phrase('day.load_row.duty_cycle', { name: load.name })"
        bare
        :called="called(phrase('day.load_row.edit_duty'))"
        :problems-at="problemsAt"
      />
    </td>
    <td class="from" :data-label="phrase('day.load_row.from')">
      <PlanField
        v-if="figures?.runs !== false && (times.use === 'hours' || times.use === 'uses')"
        unit=""
        :path="`${timesAt}/starts_at`"
        :label="phrase('day.load_row.start_time', { name: load.name })"
        :placeholder="phrase('day.load_row.any')"
        bare
        :called="called(phrase('day.load_row.edit_time'))"
        :problems-at="problemsAt"
      />
    </td>
    <td class="wh" :data-label="phrase('day.load_row.a_day')">
      <FigureLink
        v-if="figures"
        :figure="figures.wh"
        :name="load.name"
        class="font-semibold whitespace-nowrap"
      />
    </td>
    <td class="share">
      <div v-if="figures" class="flex items-center gap-2">
        <span class="h-2 grow overflow-hidden rounded-full bg-line" aria-hidden="true">
          <span class="block h-full rounded-full bg-sea" :style="{ width: `${share}%` }" />
        </span>
        <FigureLink
          :figure="figures.share"
          :name="phrase('day.load_row.share')"
          class="w-11 text-right text-sm"
        />
      </div>
    </td>
    <td class="drop whitespace-nowrap">
      <IconButton
        small
        class="unfolds"
        :icon="unfolded ? ChevronUp : ChevronDown"
        :label="phrase('day.load_row.fields', { name: load.name })"
        :aria-expanded="unfolded"
        data-unfold
        @click="unfolded = !unfolded"
      />
      <IconButton
        small
        :icon="SlidersHorizontal"
        :label="phrase('day.load_row.details', { name: load.name })"
        :hint="phrase('day.load_row.range_start_measurement_weather')"
        :aria-expanded="open"
        @click="open = !open"
      />
      <IconButton
        small
        :icon="Trash2"
        :label="phrase('day.load_row.remove', { name: load.name })"
        @click="$emit('remove')"
      />
    </td>
  </tr>
  <tr v-if="problems.length" class="problems">
    <td :id="problemsAt" colspan="11" role="alert">
      <div v-for="p in problems" :key="p.path" class="leading-snug text-blocking">
        <b class="capitalize">{{ p.field }}</b>: {{ p.message }}
        <InterpretationList :path="p.path" />
      </div>
    </td>
  </tr>
  <LoadDetails v-if="open" :load="load" :index="index" :problems-at="problemsAt" />
</template>
