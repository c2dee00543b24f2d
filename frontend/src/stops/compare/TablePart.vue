<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import FindingList from '@/ui/FindingList.vue'
import SentenceText from '@/ui/SentenceText.vue'
import FoldedSection from '@/ui/FoldedSection.vue'
import { computed, nextTick, ref } from 'vue'
import CompareTable from './CompareTable.vue'
import EqualTerms from './EqualTerms.vue'
import SameLabel from './SameLabel.vue'

const plan = usePlan()
const equal = ref(false)
const compare = computed(() => plan.rig!.compare)
const findings = computed(() => plan.rig!.findings.filter((f) => f.stop === 'compare'))
const terms = ref<InstanceType<typeof EqualTerms> | null>(null)

async function equalise() {
  equal.value = true
  await nextTick()
  await nextTick()
  terms.value?.show('usable')
}
</script>

<template>
  <p class="mb-4 max-w-4xl leading-relaxed text-pretty" data-result>
    <SentenceText :tokens="compare.sentence" />
  </p>
  <section class="sheet px-4 py-3"><CompareTable /></section>
  <FindingList :findings="findings" class="mt-3" />
  <button v-if="compare.unequal" type="button" class="btn mt-3" data-equalise @click="equalise">
    {{ phrase('compare.table_part.make_usable_energy_equal') }}
  </button>
  <div class="mt-4 border-b border-line">
    <FoldedSection name="terms" :title="phrase('compare.equal_terms.equal_terms')" :open="equal"
      ><EqualTerms ref="terms"
    /></FoldedSection>
    <FoldedSection
      v-if="compare.corrections.length"
      name="label"
      :title="phrase('compare.table_part.same_rated_capacity_start')"
      ><SameLabel
    /></FoldedSection>
  </div>
</template>
