<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

const props = defineProps<{ path: string }>()
const plan = usePlan()
const interpretations = computed(() => plan.drafts[props.path]?.interpretations ?? [])
</script>

<template>
  <span v-if="interpretations.length" class="mt-1 flex flex-wrap gap-1.5" data-interpretations>
    <button
      v-for="r in interpretations"
      :key="r.label"
      type="button"
      class="btn min-h-8 px-2.5 py-0.5 text-left text-sm whitespace-normal text-ink"
      @click="plan.mean(path, r)"
    >
      {{ r.label }}
    </button>
  </span>
</template>
