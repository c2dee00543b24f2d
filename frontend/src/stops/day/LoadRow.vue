<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import IconButton from '@/ui/IconButton.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import InterpretationList from '@/ui/InterpretationList.vue'
import { SlidersHorizontal, Trash2 } from '@lucide/vue'
import { computed, ref } from 'vue'
import LoadDetails from './LoadDetails.vue'
import LoadTimes from './LoadTimes.vue'
import type { Load } from '@/api/rigFile'
import { useLoads, type OnDay } from '@/stores/useLoads'

const plan = usePlan()
const props = defineProps<{ load: Load; index: number; figures?: Schemas['LoadView'] }>()
defineEmits<{ remove: [] }>()
const { onDay, timesOf, timesPath, setOnDay } = useLoads()

const NOTHING: { path: string; field: string; message: string }[] = []
const open = ref(false)
const at = computed(() => `/day/loads/${props.index}`)
const times = computed(() => timesOf(props.load))
const timesAt = computed(() => timesPath(props.load, props.index))
const day = computed(() => onDay(props.load))
const called = (what: string) => `${props.load.name}: ${what}`
const problemsAt = computed(() => `problems-${props.load.id}`)
const problems = computed(() => {
  const names: Record<string, string> = {
    starts_at: 'from',
    quantity: 'how many',
    low: 'at least',
    high: 'at most',
    start_w: 'starts at',
  }
  const wrong = Object.entries(plan.drafts).filter(
    ([path, draft]) => path.startsWith(`${at.value}/`) && draft.message,
  )
  // The same nothing as before: every row looks at what is typed into any, and is not drawn again for it.
  if (!wrong.length) return NOTHING
  return wrong
    .map(([path, draft]) => {
      const field = path.slice(path.lastIndexOf('/') + 1)
      return { path, field: names[field] ?? field, message: draft.message }
    })
    .filter((p) => !open.value || !(p.field in DETAILS))
})
const DETAILS = {
  'at least': 1,
  'at most': 1,
  'starts at': 1,
  start_s: 1,
  measured_wh: 1,
  measured_hours: 1,
}
const share = computed(() => Math.round((props.figures?.share.value ?? 0) * 100))
const marks = computed(() =>
  [
    props.figures?.measured && 'measured',
    props.load.critical && 'critical',
    !props.load.together && 'runs alone',
    plan.document.second_bank && props.load.bank === 'second' && 'second bank',
  ].filter(Boolean),
)
const ON_DAY = [
  { value: 'usual', name: 'usual' },
  { value: 'own', name: 'own' },
  { value: 'off', name: 'off' },
]

function choose(event: Event) {
  setOnDay(props.load, props.index, (event.target as HTMLSelectElement).value as OnDay)
}
</script>

<template>
  <tr class="load align-top" :class="figures?.runs === false ? 'off' : ''" :data-load="load.id">
    <td class="name">
      <PlanField
        :path="`${at}/name`"
        label="Name"
        text
        bare
        :called="called('name')"
        :problems-at="problemsAt"
      />
      <p v-if="marks.length" class="px-2 pt-0.5 text-xs text-soft" data-marks>
        {{ marks.join(', ') }}
      </p>
    </td>
    <td class="supply">
      <PlanChoice
        :path="`${at}/supply`"
        :label="`Supply of ${load.name}`"
        bare
        :value="load.supply"
        :called="called('supply')"
        :options="[
          { value: 'dc', name: 'DC' },
          { value: 'ac', name: 'AC' },
        ]"
      />
    </td>
    <td class="draw" data-label="Draw">
      <PlanField
        :path="`${at}/draw`"
        :label="`Draw of ${load.name}, W or A`"
        bare
        :called="called('draw')"
        :problems-at="problemsAt"
      />
    </td>
    <td class="count" data-label="How many">
      <PlanField
        :path="`${at}/quantity`"
        :label="`How many ${load.name}`"
        bare
        :called="called('number')"
        :problems-at="problemsAt"
      />
    </td>
    <td class="on" data-label="This day">
      <label>
        <span class="sr-only">{{ load.name }} on this day</span>
        <select class="field" data-on-day @change="choose">
          <option v-for="o in ON_DAY" :key="o.value" :value="o.value" :selected="o.value === day">
            {{ o.name }}
          </option>
        </select>
      </label>
    </td>
    <td class="use" data-label="Use">
      <p v-if="day === 'off'" class="px-1 py-1.5 text-soft">does not run</p>
      <p v-else-if="figures?.runs === false" class="px-1 py-1.5 text-soft">
        off while nobody is there
      </p>
      <LoadTimes v-else :at="timesAt" :name="load.name" :times="times" :problems-at="problemsAt" />
    </td>
    <td class="duty" data-label="Duty">
      <p v-if="figures?.duty" class="px-1 py-1.5 text-soft" title="Its duty follows the weather">
        {{ figures.duty }}
      </p>
      <PlanField
        v-else
        :path="`${at}/duty`"
        :label="`Duty cycle of ${load.name}`"
        bare
        :called="called('duty')"
        :problems-at="problemsAt"
      />
    </td>
    <td class="from" data-label="From">
      <PlanField
        v-if="figures?.runs !== false && (times.use === 'hours' || times.use === 'uses')"
        :path="`${timesAt}/starts_at`"
        :label="`Time of day at which ${load.name} starts`"
        placeholder="any"
        bare
        :called="called('time')"
        :problems-at="problemsAt"
      />
    </td>
    <td class="wh" data-label="A day">
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
        <FigureLink :figure="figures.share" name="Share" class="w-11 text-right text-sm" />
      </div>
    </td>
    <td class="drop whitespace-nowrap">
      <IconButton
        small
        :icon="SlidersHorizontal"
        :label="`Details of ${load.name}`"
        hint="Doubt, start, measurement, weather"
        :aria-expanded="open"
        @click="open = !open"
      />
      <IconButton small :icon="Trash2" :label="`Remove ${load.name}`" @click="$emit('remove')" />
    </td>
  </tr>
  <tr v-if="problems.length" class="problems">
    <td :id="problemsAt" colspan="11" role="alert">
      <div v-for="p in problems" :key="p.path" class="leading-snug text-stop">
        <b class="capitalize">{{ p.field }}</b>: {{ p.message }}
        <InterpretationList :path="p.path" />
      </div>
    </td>
  </tr>
  <LoadDetails v-if="open" :load="load" :index="index" :problems-at="problemsAt" />
</template>
