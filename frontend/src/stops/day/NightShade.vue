<script setup lang="ts">
import { usePlan } from '@/stores/plan'

const plan = usePlan()
</script>

<template>
  <span
    v-for="([from, to], i) in plan.rig!.day.night"
    :key="i"
    class="pointer-events-none absolute inset-y-0 bg-ink/[0.07]"
    :style="{ left: `${(from / 24) * 100}%`, width: `${((to - from) / 24) * 100}%` }"
    aria-hidden="true"
    data-night
  />
</template>
