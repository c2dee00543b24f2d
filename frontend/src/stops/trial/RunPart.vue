<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { usePlan } from '@/stores/plan'
import FoldedSection from '@/ui/FoldedSection.vue'
import SentenceText from '@/ui/SentenceText.vue'
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
  <p v-if="answer && !banks.length" class="mb-4 text-soft">
    {{ phrase('trial.run_part.add_bank_built_then') }}
  </p>
  <ul v-if="answer" class="mb-4 max-w-4xl space-y-1 text-lg" data-outcomes>
    <li v-for="(says, i) in answer.outcomes" :key="i"><SentenceText :tokens="says" /></li>
  </ul>
  <FoldedSection
    name="period"
    :title="phrase('trial.run_part.period')"
    :says="answer?.says ?? ''"
    class="border-b"
  >
    <StretchControls :run="answer" />
  </FoldedSection>
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
