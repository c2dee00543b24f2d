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
import { computed, nextTick, ref } from 'vue'
import LoadDetails from './LoadDetails.vue'
import LoadTimes from './LoadTimes.vue'
import type { Load } from '@/api/rigFile'
import { useLoads, type OnDay } from '@/stores/useLoads'

const plan = usePlan()
const props = defineProps<{ load: Load; index: number; figures?: Schemas['LoadView'] }>()
defineEmits<{ remove: [] }>()
/** The load whose fields are open: one at a time. */
const opened = defineModel<string>('opened', { required: true })
const { onDay, timesOf, timesPath, setOnDay } = useLoads()

const NOTHING: { path: string; key: string; field: string; message: string }[] = []
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
    .filter((p) => !detailed.value || !DETAILS.has(p.key))
})
/** Whether the details stand below, with what is wrong in them. */
const detailed = computed(() => opened.value === props.load.id && open.value)
/** What is wrong stays in sight. */
const unfolded = computed(() => opened.value === props.load.id || problems.value.length > 0)
/** Fields whose problems stand at them while the row is open. */
const DETAILS = new Set(['low', 'high', 'start_w', 'start_s', 'measured_wh', 'measured_hours'])
const share = computed(() => Math.round((props.figures?.share.value ?? 0) * 100))
const says = computed(() => {
  if (day.value === 'off') return phrase('day.load_row.not_today')
  if (props.figures?.runs === false) return phrase('day.load_row.off_while_nobody')
  return props.figures?.says ?? ''
})
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

const row = ref<HTMLElement | null>(null)
const fields = ref<HTMLElement | null>(null)
/** Open the fields, the hand at one of them; or close them, the hand at the line again. */
async function unfold(at = '.name') {
  if (opened.value === props.load.id) {
    opened.value = ''
    await nextTick()
    row.value?.querySelector<HTMLElement>('[data-open]')?.focus()
    return
  }
  opened.value = props.load.id
  await nextTick()
  const field = fields.value?.querySelector<HTMLInputElement>(`${at} :is(input, select)`)
  field?.focus()
  if (field?.matches('input')) field.select()
}

function choose(event: Event) {
  setOnDay(props.load, props.index, (event.target as HTMLSelectElement).value as OnDay)
}
</script>

<template>
  <tbody
    ref="row"
    class="load"
    :class="[{ off: figures?.runs === false }, unfolded ? 'open' : 'folded']"
    :data-load="load.id"
  >
    <tr class="line" @click="unfolded || unfold()">
      <td class="name">
        <button
          type="button"
          class="rounded-sm text-left font-semibold hover:text-sea"
          :aria-expanded="unfolded"
          data-open
          @click.stop="unfold()"
        >
          {{ load.name || phrase('day.load_row.unnamed') }}
        </button>
        <span v-if="marks.length" class="block text-xs text-soft" data-marks>{{
          marks.join(', ')
        }}</span>
      </td>
      <td class="use says text-soft" @click.stop="unfolded || unfold('.draw')">{{ says }}</td>
      <td class="wh">
        <FigureLink
          v-if="figures"
          :figure="figures.bank_wh"
          :name="load.name"
          class="font-semibold whitespace-nowrap"
          :tabindex="unfolded ? undefined : -1"
          @click.stop
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
            :tabindex="unfolded ? undefined : -1"
            @click.stop
          />
        </div>
      </td>
      <td class="text-right whitespace-nowrap">
        <IconButton
          small
          :icon="unfolded ? ChevronUp : ChevronDown"
          :label="
            unfolded
              ? phrase('day.load_row.close', { name: load.name })
              : phrase('day.load_row.fields', { name: load.name })
          "
          tabindex="-1"
          data-unfold
          @click.stop="unfold()"
        />
      </td>
    </tr>
    <tr
      v-if="unfolded"
      ref="fields"
      class="fields"
      @keydown.esc.stop="opened === load.id && unfold()"
    >
      <td colspan="5">
        <div class="grid-fields">
          <div class="name" :data-label="phrase('day.load_row.name')">
            <PlanField
              :path="`${at}/name`"
              :label="phrase('day.load_row.load_name', { name: load.name })"
              text
              bare
              :called="called(phrase('day.load_row.edit_name'))"
              :problems-at="problemsAt"
            />
          </div>
          <div class="supply" :data-label="phrase('day.load_row.supply_short')">
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
          </div>
          <div class="draw" :data-label="phrase('day.load_row.power')">
            <PlanField
              :path="`${at}/draw`"
              :label="phrase('day.load_row.power_w', { name: load.name })"
              bare
              :called="called(phrase('day.load_row.edit_draw'))"
              :problems-at="problemsAt"
            />
          </div>
          <div class="count" :data-label="phrase('day.load_row.how_many')">
            <PlanField
              :path="`${at}/quantity`"
              :label="phrase('day.load_row.how_many_name', { name: load.name })"
              bare
              :called="called(phrase('day.load_row.edit_number'))"
              :problems-at="problemsAt"
            />
          </div>
          <div class="on" :data-label="phrase('day.load_row.day')">
            <label>
              <span class="sr-only">{{
                phrase('day.load_row.name_day', { name: load.name })
              }}</span>
              <select class="field" data-on-day @change="choose">
                <option
                  v-for="o in ON_DAY"
                  :key="o.value"
                  :value="o.value"
                  :selected="o.value === day"
                >
                  {{ o.name }}
                </option>
              </select>
            </label>
          </div>
          <div
            v-if="day !== 'off' && figures?.runs !== false"
            class="use"
            :data-label="phrase('day.load_row.use')"
          >
            <LoadTimes :at="timesAt" :name="load.name" :times="times" :problems-at="problemsAt" />
          </div>
          <div class="duty" :data-label="phrase('day.load_row.duty_cycle_short')">
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
          </div>
          <div
            v-if="figures?.runs !== false && (times.use === 'hours' || times.use === 'uses')"
            class="from"
            :data-label="phrase('day.load_row.from')"
          >
            <PlanField
              unit=""
              :path="`${timesAt}/starts_at`"
              :label="phrase('day.load_row.start_time', { name: load.name })"
              :placeholder="phrase('day.load_row.any')"
              bare
              :called="called(phrase('day.load_row.edit_time'))"
              :problems-at="problemsAt"
            />
          </div>
          <div class="ml-auto self-end whitespace-nowrap">
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
          </div>
        </div>
      </td>
    </tr>
    <tr v-if="problems.length" class="problems">
      <td :id="problemsAt" colspan="5" role="alert">
        <div v-for="p in problems" :key="p.path" class="leading-snug text-blocking">
          <b class="capitalize">{{ p.field }}</b>: {{ p.message }}
          <InterpretationList :path="p.path" />
        </div>
      </td>
    </tr>
    <LoadDetails v-if="detailed" :load="load" :index="index" :problems-at="problemsAt" />
  </tbody>
</template>
