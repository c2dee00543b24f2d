<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import IconButton from '@/ui/IconButton.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { Dices } from '@lucide/vue'
import { computed } from 'vue'
import PitchRow from './PitchRow.vue'

const props = defineProps<{ run: Schemas['TrialRunView'] | null }>()
const plan = usePlan()
const trial = computed(() => plan.document.trial)
const stretches = computed(
  () => props.run?.stretches.map((s) => ({ value: s.key, name: s.name })) ?? [],
)
const months = computed(() => [
  { value: null, name: 'as planned' },
  ...(props.run?.months ?? []).map((name, i) => ({ value: i + 1, name })),
])
const planned = computed(() => trial.value.stretch === 'plan')
const ownDays = computed(
  () => props.run?.stretches.find((s) => s.key === trial.value.stretch)?.own_days ?? true,
)

function another() {
  plan.edit('another weather', {
    op: 'replace',
    path: '/trial/seed',
    value: trial.value.seed + 1,
  })
}
</script>

<template>
  <section class="sheet p-4" aria-label="What is tried">
    <div class="grid grid-cols-2 items-end gap-3 md:grid-cols-4 lg:grid-cols-7">
      <PlanChoice
        path="/trial/stretch"
        label="Try"
        called="stretch of the trial"
        :value="trial.stretch"
        :options="stretches"
        class="col-span-2"
      />
      <PlanField
        v-if="ownDays"
        path="/trial/days"
        label="Days"
        :placeholder="String(run?.days.length ?? 14)"
        called="days of the trial"
      />
      <PlanChoice
        v-if="['plan', 'wet_week', 'hook_up_lost', 'cooking'].includes(trial.stretch)"
        path="/trial/month"
        label="Month"
        called="month of the trial"
        :value="trial.month"
        :options="months"
      />
      <PlanField
        v-if="planned"
        path="/trial/nights"
        label="Nights in a row"
        :placeholder="String(run?.nights ?? 3)"
        called="nights in a row of the trial"
      />
      <PlanField
        v-if="planned"
        path="/rig/drive_every"
        label="Drives every"
        unit="days"
        placeholder="when it moves"
        called="days between drives"
      />
      <div v-if="trial.stretch !== 'worst_week'" class="flex items-end gap-1">
        <PlanField path="/trial/seed" label="Weather" called="weather of the trial" class="grow" />
        <IconButton :icon="Dices" label="Another weather" @click="another" />
      </div>
    </div>
    <p class="mt-2 max-w-3xl text-pretty text-soft">{{ run?.says }}</p>
    <details class="mt-1">
      <summary class="py-1 text-soft underline decoration-dotted underline-offset-4">
        Pitches, a hidden drain, and how full it begins
      </summary>
      <div class="mt-2 grid gap-4 md:grid-cols-[1fr_9rem_9rem]">
        <PitchRow />
        <PlanField
          path="/trial/hidden_w"
          label="Hidden drain"
          unit="W"
          called="hidden drain of the trial"
        />
        <PlanField path="/trial/start_soc" label="Begins at" called="charge at the start" />
      </div>
    </details>
  </section>
</template>
