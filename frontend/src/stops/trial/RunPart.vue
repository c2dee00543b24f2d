<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed, defineAsyncComponent } from 'vue'
import EventList from './EventList.vue'
import FlowPicture from './FlowPicture.vue'
import OddsTool from './OddsTool.vue'
import RunTable from './RunTable.vue'
import StretchControls from './StretchControls.vue'
import { useRun } from './useRun'

const TrialChart = defineAsyncComponent(() => import('./TrialChart.vue'))
const plan = usePlan()
const { answer, banks, drawn, focus, choose, moment, look } = useRun()
const shown = computed(() => banks.value.filter((l) => drawn.value.includes(l.id)))
const bank = computed(() => banks.value.find((l) => l.id === focus.value))
</script>

<template>
  <StretchControls :run="answer" />
  <p v-if="answer && !banks.length" class="mt-4 text-soft">
    {{ phrase('trial.run_part.add_bank_built_then') }}
  </p>
  <template v-if="answer && banks.length">
    <p v-if="plan.rig!.stale" class="sr-only" role="status">
      {{ phrase('trial.run_part.simulating_days_again') }}
    </p>
    <RunTable :banks="banks" :drawn="drawn" class="mt-4" @choose="choose" />
    <TrialChart
      :run="answer"
      :banks="shown"
      :moment="moment"
      class="mt-4"
      :class="plan.rig!.stale ? 'opacity-60' : ''"
      @look="look"
    />
    <div v-if="bank" class="mt-6 grid gap-6 lg:grid-cols-2">
      <section class="sheet min-w-0 p-4">
        <h2 class="mb-1 flex items-center gap-2 text-xl">
          <ChemistryMark :battery-class="bank.battery_class" />
          {{ phrase('trial.run_part.moment', { title: bank.title }) }}
        </h2>
        <FlowPicture
          :bank-id="bank.id"
          :moment="moment"
          :soc="bank.soc[moment] ?? 0"
          :battery-class="bank.battery_class"
        />
      </section>
      <section class="min-w-0">
        <h2 class="mb-1 text-xl">{{ phrase('trial.run_part.events') }}</h2>
        <EventList :bank="bank" :moment="moment" @look="look" />
      </section>
    </div>
    <OddsTool v-if="plan.document.trial.stretch === 'plan'" class="mt-8" />
  </template>
</template>
