<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import FindingList from '@/ui/FindingList.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { Switch, SwitchGroup, SwitchLabel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import CompareTable from './CompareTable.vue'
import EqualTerms from './EqualTerms.vue'
import SameLabel from './SameLabel.vue'

const plan = usePlan()
const sameLabel = ref(false)
const compare = computed(() => plan.rig!.compare)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'compare'))
const terms = ref<InstanceType<typeof EqualTerms> | null>(null)
</script>

<template>
  <section class="sheet px-4 py-3"><CompareTable /></section>
  <p class="mt-5 max-w-4xl text-lg leading-relaxed text-pretty" data-result>
    <SentenceText :tokens="compare.sentence" />
  </p>
  <FindingList :findings="findings" class="mt-3" />
  <button
    v-if="compare.unequal"
    type="button"
    class="btn mt-3"
    data-equalise
    @click="terms?.show('usable')"
  >
    {{ phrase('compare.table_part.make_usable_energy_equal') }}
  </button>
  <section class="sheet mt-6 p-5"><EqualTerms ref="terms" /></section>
  <SwitchGroup v-if="compare.corrections.length" as="div" class="mt-6 flex items-center gap-3">
    <Switch
      v-model="sameLabel"
      class="inline-flex h-6 w-11 shrink-0 items-center rounded-full border border-edge px-0.5"
      :class="sameLabel ? 'bg-sea' : 'bg-well'"
    >
      <span
        class="size-4.5 rounded-full transition-transform"
        :class="sameLabel ? 'translate-x-[1.15rem] bg-onsea' : 'bg-edge'"
      />
    </Switch>
    <SwitchLabel class="font-semibold">{{
      phrase('compare.table_part.same_rated_capacity_start')
    }}</SwitchLabel>
  </SwitchGroup>
  <section v-if="sameLabel" class="sheet mt-3 p-5"><SameLabel /></section>
</template>
