<script setup lang="ts">
import type { CandidateView } from '@/api/client'
import ChemistryMark from './ChemistryMark.vue'

defineProps<{ banks: CandidateView[]; chosen: string[]; label: string }>()
defineEmits<{ choose: [id: string] }>()
</script>

<template>
  <div
    class="relative -mx-1 flex gap-2 overflow-x-auto px-1 py-1 sm:flex-wrap"
    role="group"
    :aria-label="label"
  >
    <button
      v-for="c in banks"
      :key="c.id"
      type="button"
      class="btn h-auto shrink-0 py-1.5 text-left leading-tight font-normal whitespace-normal"
      :class="chosen.includes(c.id) ? 'border-sea bg-wash ring-1 ring-sea' : ''"
      :aria-pressed="chosen.includes(c.id)"
      :data-pick="c.id"
      @click="$emit('choose', c.id)"
    >
      <ChemistryMark :battery-class="c.battery_class" />
      <span
        ><span class="font-semibold">{{ c.title }}</span
        ><br /><span class="text-sm text-soft">{{ c.layout }}</span></span
      >
    </button>
  </div>
</template>
