<script setup lang="ts">
import { phrase } from '@/phrases/trial'
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
  { value: null, name: phrase('trial.stretch_controls.planned') },
  ...(props.run?.months ?? []).map((name, i) => ({ value: i + 1, name })),
])
const planned = computed(() => trial.value.stretch === 'plan')
const ownDays = computed(
  () => props.run?.stretches.find((s) => s.key === trial.value.stretch)?.own_days ?? true,
)

function another() {
  plan.edit(phrase('trial.stretch_controls.another_weather_short'), {
    op: 'replace',
    path: '/trial/seed',
    value: trial.value.seed + 1,
  })
}
</script>

<template>
  <section class="sheet p-4" :aria-label="phrase('trial.stretch_controls.trial_period')">
    <div class="grid grid-cols-2 items-end gap-3 md:grid-cols-4 lg:grid-cols-7">
      <PlanChoice
        path="/trial/stretch"
        :label="phrase('trial.stretch_controls.period')"
        :called="phrase('trial.stretch_controls.period_trial')"
        :value="trial.stretch"
        :options="stretches"
        class="col-span-2"
      />
      <PlanField
        v-if="ownDays"
        path="/trial/days"
        :label="phrase('trial.stretch_controls.days')"
        :placeholder="String(run?.days.length ?? 14)"
        :called="phrase('trial.stretch_controls.days_trial')"
      />
      <PlanChoice
        v-if="['plan', 'wet_week', 'hook_up_lost', 'cooking'].includes(trial.stretch)"
        path="/trial/month"
        :label="phrase('trial.stretch_controls.month')"
        :called="phrase('trial.stretch_controls.month_trial')"
        :value="trial.month"
        :options="months"
      />
      <PlanField
        v-if="planned"
        path="/trial/nights"
        :label="phrase('trial.stretch_controls.nights_row')"
        :placeholder="String(run?.nights ?? 3)"
        :called="phrase('trial.stretch_controls.nights_row_trial')"
      />
      <PlanField
        v-if="planned"
        path="/rig/drive_every"
        :label="phrase('trial.stretch_controls.moves_every')"
        :placeholder="phrase('trial.stretch_controls.when_moves')"
        :called="phrase('trial.stretch_controls.days_between_drives')"
      />
      <div v-if="trial.stretch !== 'worst_week'" class="flex items-end gap-1">
        <PlanField
          path="/trial/seed"
          :label="phrase('trial.stretch_controls.weather')"
          :called="phrase('trial.stretch_controls.weather_trial')"
          class="grow"
        />
        <IconButton
          :icon="Dices"
          :label="phrase('trial.stretch_controls.another_weather')"
          @click="another"
        />
      </div>
    </div>
    <details class="mt-1">
      <summary class="discloses">
        {{ phrase('trial.stretch_controls.places_hidden_drain_charge') }}
      </summary>
      <div class="mt-2 grid gap-4 md:grid-cols-[1fr_9rem_9rem]">
        <PitchRow />
        <PlanField
          path="/trial/hidden_w"
          :label="phrase('trial.stretch_controls.hidden_drain')"
          :called="phrase('trial.stretch_controls.hidden_drain_trial')"
        />
        <PlanField
          path="/trial/start_soc"
          :label="phrase('trial.stretch_controls.charge_at_the_start')"
          :called="phrase('trial.stretch_controls.charge_start')"
        />
      </div>
    </details>
  </section>
</template>
