<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import PlanChoice from '@/ui/PlanChoice.vue'
import { computed } from 'vue'
import { KINDS } from './kinds'
import SourceCard from './SourceCard.vue'
import { useSources } from './useSources'

const plan = usePlan()
const { sources, full, add } = useSources()
const rig = computed(() => plan.document.rig)
const PITCHES = [
  { value: 'open', name: 'In the open' },
  { value: 'half', name: 'In half shade' },
  { value: 'trees', name: 'Under trees' },
]
const WARNINGS = [
  { value: '', name: 'a voltmeter, or nothing' },
  { value: 'monitor', name: 'an alarm, or a monitor that counts' },
]
const DISCONNECTS = [
  { value: 'all', name: 'drops all loads' },
  { value: 'not_critical', name: 'spares the critical ones' },
  { value: 'none', name: 'is not fitted' },
]
</script>

<template>
  <p class="mb-4 max-w-3xl text-pretty text-soft">
    Everything that puts charge into the house bank, and what takes some of it for the starting
    battery. Volts are those for a 12 V bank.
  </p>
  <div class="grid items-start gap-4 lg:grid-cols-2">
    <SourceCard v-for="s in sources" :key="s.id" :view="s" />
    <section v-if="!sources.length" class="sheet p-5 lg:col-span-2">
      <h2 class="text-xl">What charges the bank?</h2>
      <p class="mt-1 max-w-2xl text-pretty text-soft">
        Add the charger, the panels or the engine. Until then every bank is only run down, and its
        life is reckoned by hand.
      </p>
    </section>
  </div>
  <div class="mt-4 flex flex-wrap items-center gap-2">
    <span class="text-soft">Add</span>
    <button
      v-for="(k, i) in KINDS"
      :key="k.key"
      type="button"
      class="btn"
      :disabled="full"
      :data-new="i === 0 ? '' : undefined"
      :data-add="k.key"
      @click="add(k.key)"
    >
      <component :is="k.icon" :size="16" aria-hidden="true" /> {{ k.name }}
    </button>
    <span v-if="full" class="text-soft">Twelve sources are the most.</span>
  </div>
  <section class="mt-8 grid max-w-3xl gap-4 sm:grid-cols-2">
    <PlanChoice
      path="/rig/pitch"
      label="It usually stands"
      called="usual pitch"
      :value="rig.pitch as string"
      :options="PITCHES"
    />
    <PlanChoice
      path="/rig/disconnect"
      label="At low volts a disconnect"
      called="load disconnect"
      :value="rig.disconnect as string"
      :options="DISCONNECTS"
    />
    <PlanChoice
      path="/rig/watched"
      label="Before it is empty you are warned by"
      called="warning"
      :value="rig.watched as string"
      :options="WARNINGS"
    />
  </section>
</template>
