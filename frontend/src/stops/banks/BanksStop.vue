<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useUi } from '@/stores/ui'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import { ScanText } from '@lucide/vue'
import { computed } from 'vue'
import BankCard from './BankCard.vue'
import CatalogueTabs from './CatalogueTabs.vue'
import OwnModels from './OwnModels.vue'
import { useBanks } from './useBanks'

const plan = usePlan()
const ui = useUi()
const reference = useReference()
const { candidates, add, full } = useBanks()
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'banks' && !f.subject))
</script>

<template>
  <h1 class="text-3xl">The banks</h1>
  <p class="mt-1 max-w-3xl text-pretty text-soft">
    Real batteries in series and parallel, side by side. Each follows the need until you step it
    yourself, so that banks of equal usable energy are compared.
  </p>
  <p v-if="!plan.rig!.need.energy.value" class="mt-3 text-xl">
    The day has no loads yet, so these are the smallest of their class.
    <RouterLink
      class="text-sea underline underline-offset-4"
      :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'day' } }"
      >List the loads</RouterLink
    >
  </p>
  <p v-else class="mt-3 text-xl" data-main>
    Each should give
    <FigureLink :figure="plan.rig!.need.energy" name="The need" class="font-semibold" /> usable.
  </p>
  <FindingList :findings="findings" class="mt-3" />
  <section
    class="mt-6 grid items-start gap-4 md:grid-cols-2 xl:grid-cols-3"
    aria-label="Candidates"
  >
    <BankCard v-for="c in candidates" :key="c.id" :candidate="c" />
  </section>
  <div class="mt-4 flex flex-wrap items-center gap-2">
    <span class="text-soft">Put up the smallest that covers the need:</span>
    <button
      v-for="c in reference.data?.classes"
      :key="c.key"
      type="button"
      class="btn"
      :disabled="full"
      :data-new="c.key === 'agm' ? '' : undefined"
      @click="add(c.key, null, c.name)"
    >
      {{ c.short }}
    </button>
    <span v-if="full" class="text-soft">Eight candidates are the most.</span>
  </div>
  <h2 class="mt-10 mb-2 text-xl">The catalogue</h2>
  <p class="mb-3 max-w-3xl text-pretty text-soft">
    Made-up batteries of the size, weight and price that are sold. Each line is the fewest strings
    that cover the need.
  </p>
  <section class="sheet px-5 py-2"><CatalogueTabs /></section>
  <h2 class="mt-10 text-xl">Your own batteries</h2>
  <p class="max-w-3xl text-pretty text-soft">
    Copy the label and the datasheet of a battery that you are offered; it then stands in the
    catalogue above.
  </p>
  <button type="button" class="btn mt-2" @click="ui.labelShown = true">
    <ScanText :size="16" aria-hidden="true" /> Read a label first
  </button>
  <OwnModels />
</template>
