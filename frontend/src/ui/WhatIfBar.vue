<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

const plan = usePlan()
const tried = computed(() => plan.rig?.what_if?.tried ?? null)
const said = computed(() => {
  const list = tried.value ?? []
  if (!list.length) return 'Change anything: every figure then tells what it is in the plan.'
  const last = list.slice(-3).join(', ')
  return `${list.length === 1 ? '1 change' : `${list.length} changes`} tried: ${list.length > 3 ? '… ' : ''}${last}.`
})
</script>

<template>
  <div
    v-if="tried"
    class="border-b-2 border-dashed border-note bg-wash print:hidden"
    role="status"
    data-what-if
  >
    <div class="mx-auto flex max-w-[1240px] flex-wrap items-center gap-x-4 gap-y-2 px-4 py-2">
      <p class="min-w-0 grow leading-snug"><b>What if.</b> {{ said }}</p>
      <button type="button" class="btn btn-main" @click="plan.whatIf('keep')">Keep it</button>
      <button type="button" class="btn" @click="plan.whatIf('drop')">Drop it</button>
    </div>
  </div>
</template>
