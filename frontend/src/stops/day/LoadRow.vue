<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { Trash2 } from '@lucide/vue'
import { computed } from 'vue'
import type { Load } from './useLoads'

const plan = usePlan()
const props = defineProps<{ load: Load; index: number; figures?: Schemas['LoadView'] }>()
defineEmits<{ remove: [] }>()

const at = computed(() => `/day/loads/${props.index}`)
const called = (what: string) => `${props.load.name}: ${what}`
const problemsAt = computed(() => `problems-${props.load.id}`)
const problems = computed(() => {
  const names: Record<string, string> = { starts_at: 'from', quantity: 'how many' }
  return Object.entries(plan.drafts)
    .filter(([path, draft]) => path.startsWith(`${at.value}/`) && draft.message)
    .map(([path, draft]) => {
      const field = path.slice(at.value.length + 1)
      return { field: names[field] ?? field, message: draft.message }
    })
})
const share = computed(() => Math.round((props.figures?.share.value ?? 0) * 100))
</script>

<template>
  <tr class="load align-top" :data-load="load.id">
    <td class="name">
      <PlanField
        :path="`${at}/name`"
        label="Name"
        text
        bare
        :called="called('name')"
        :problems-at="problemsAt"
      />
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
    <td class="use" data-label="Use">
      <div class="flex items-start gap-1.5">
        <PlanChoice
          class="w-[6.4rem] shrink-0"
          :path="`${at}/use`"
          :label="`Way of use of ${load.name}`"
          bare
          :value="load.use"
          :called="called('use')"
          :options="[
            { value: 'hours', name: 'hours' },
            { value: 'uses', name: 'uses ×' },
            { value: 'times', name: 'at times' },
            { value: 'standby', name: 'all day' },
          ]"
        />
        <PlanField
          v-if="load.use === 'hours'"
          class="grow"
          :path="`${at}/hours`"
          :label="`Hours a day of ${load.name}`"
          unit="h"
          bare
          :called="called('hours')"
          :problems-at="problemsAt"
        />
        <template v-else-if="load.use === 'uses'">
          <PlanField
            class="w-16 shrink-0"
            :path="`${at}/uses`"
            :label="`Uses a day of ${load.name}`"
            bare
            :called="called('uses')"
            :problems-at="problemsAt"
          />
          <PlanField
            class="grow"
            :path="`${at}/minutes`"
            :label="`Minutes a use of ${load.name}`"
            unit="min"
            bare
            :called="called('minutes')"
            :problems-at="problemsAt"
          />
        </template>
        <PlanField
          v-else-if="load.use === 'times'"
          class="grow"
          :path="`${at}/windows`"
          :label="`Set times of ${load.name}`"
          placeholder="18:00–22:30"
          bare
          text
          :called="called('times')"
          :problems-at="problemsAt"
        />
        <p v-else class="self-center px-1 text-soft">24 h</p>
      </div>
    </td>
    <td class="duty" data-label="Duty">
      <PlanField
        :path="`${at}/duty`"
        :label="`Duty cycle of ${load.name}`"
        bare
        :called="called('duty')"
        :problems-at="problemsAt"
      />
    </td>
    <td class="from" data-label="From">
      <PlanField
        v-if="load.use === 'hours' || load.use === 'uses'"
        :path="`${at}/starts_at`"
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
        <FigureLink :figure="figures.share" name="Share" class="w-12 text-right text-sm" />
      </div>
    </td>
    <td class="drop">
      <button
        type="button"
        class="btn btn-quiet btn-icon text-soft"
        :aria-label="`Remove ${load.name}`"
        @click="$emit('remove')"
      >
        <Trash2 :size="16" />
      </button>
    </td>
  </tr>
  <tr v-if="problems.length" class="problems">
    <td :id="problemsAt" colspan="10" role="alert">
      <p v-for="p in problems" :key="p.field" class="leading-snug text-stop">
        <b class="capitalize">{{ p.field }}</b>: {{ p.message }}
      </p>
    </td>
  </tr>
</template>
