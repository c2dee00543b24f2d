<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { computed } from 'vue'
import QuestionWhat from './QuestionWhat.vue'

/** The first question, of a rig that is there. */
const plan = usePlan()
const reference = useReference()
const rig = computed(() => plan.document.rig)

function toKind(kind: string) {
  plan.edit(phrase('questions.what.kind'), { op: 'replace', path: '/rig/kind', value: kind })
}

function toRegion(region: string) {
  plan.edit(phrase('questions.what.region'), ...reference.withRegion(region), {
    op: 'replace',
    path: '/rig/region',
    value: region,
  })
}
</script>

<template>
  <QuestionWhat
    :kind="rig.kind as string"
    :region="rig.region as string"
    @kind="toKind"
    @region="toRegion"
  />
</template>
