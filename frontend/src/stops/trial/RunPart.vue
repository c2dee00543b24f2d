<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { usePlan } from '@/stores/plan'
import FoldedSection from '@/ui/FoldedSection.vue'
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
    <TrialChart
      :run="answer"
      :banks="shown"
      :moment="moment"
      class="mt-4"
      :class="plan.rig!.stale ? 'opacity-60' : ''"
      @look="look"
    />
    <RunTable :banks="banks" :drawn="drawn" class="mt-2" @choose="choose" />
    <div v-if="bank" class="mt-5 border-b border-line">
      <FoldedSection name="moment" :title="phrase('trial.run_part.moment', { title: bank.title })"
        ><section class="sheet max-w-2xl p-4">
          <FlowPicture
            :bank-id="bank.id"
            :moment="moment"
            :soc="bank.soc[moment] ?? 0"
            :battery-class="bank.battery_class"
          /></section
      ></FoldedSection>
      <FoldedSection
        name="events"
        :title="phrase('trial.run_part.events')"
        :says="`${bank.events.length}`"
      >
        <EventList :bank="bank" :moment="moment" @look="look" />
      </FoldedSection>
      <FoldedSection
        v-if="plan.document.trial.stretch === 'plan'"
        name="odds"
        :title="phrase('trial.run_part.odds')"
        ><OddsTool
      /></FoldedSection>
    </div>
  </template>
</template>
