<script setup lang="ts">
import CumulativeChart from '@/charts/CumulativeChart.vue'
import RundownChart from '@/charts/RundownChart.vue'
import { usePlan } from '@/stores/plan'
import FindingList from '@/ui/FindingList.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { Switch, SwitchGroup, SwitchLabel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import CompareTable from './CompareTable.vue'
import SameLabel from './SameLabel.vue'

const plan = usePlan()
const sameLabel = ref(false)
const compare = computed(() => plan.rig!.compare)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'compare'))
const ready = computed(() => compare.value.columns.length > 0 && compare.value.rundown.length > 0)
</script>

<template>
  <h1 class="text-3xl">The comparison</h1>
  <p class="mt-3 max-w-4xl text-xl leading-relaxed" data-main data-result>
    <SentenceText :tokens="compare.sentence" />
  </p>
  <FindingList :findings="findings" class="mt-3" />
  <template v-if="ready">
    <SwitchGroup v-if="compare.corrections.length" as="div" class="mt-5 flex items-center gap-3">
      <Switch
        v-model="sameLabel"
        class="inline-flex h-6 w-11 items-center rounded-full border border-edge px-0.5"
        :class="sameLabel ? 'bg-sea' : 'bg-well'"
      >
        <span
          class="size-4.5 rounded-full transition-transform"
          :class="sameLabel ? 'translate-x-[1.15rem] bg-onsea' : 'bg-edge'"
        />
      </Switch>
      <SwitchLabel class="font-semibold"
        >Same label: begin with the naive comparison and correct it</SwitchLabel
      >
    </SwitchGroup>
    <section v-if="sameLabel" class="sheet mt-3 p-5"><SameLabel /></section>
    <section class="sheet mt-5 p-5"><CompareTable /></section>
    <div class="mt-6 grid gap-6 lg:grid-cols-2">
      <section class="sheet p-5"><CumulativeChart /></section>
      <section class="sheet p-5"><RundownChart /></section>
    </div>
  </template>
  <section v-else class="sheet mx-auto mt-10 max-w-xl p-8 text-center">
    <h2 class="text-xl">Nothing to compare yet</h2>
    <p class="mt-2 text-soft">It takes a day with loads, and banks that can be built.</p>
    <p class="mt-4 flex justify-center gap-2">
      <RouterLink class="btn" :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }"
        >List the loads</RouterLink
      >
      <RouterLink class="btn" :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'banks' } }"
        >Choose banks</RouterLink
      >
    </p>
  </section>
</template>
