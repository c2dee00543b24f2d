<script setup lang="ts">
import type { ComparedBankView } from '@/api/client'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { markOf } from './sameClass'

defineProps<{ columns: ComparedBankView[] }>()
</script>

<template>
  <ul class="mb-1 flex flex-wrap gap-x-5 gap-y-1 text-sm">
    <li v-for="c in columns" :key="c.id" class="flex items-center gap-1.5">
      <ChemistryMark
        :battery-class="c.battery_class"
        :mark="markOf(columns, c.id)"
        class="scale-90"
      />
      <span class="leading-tight">{{ c.title }}</span>
    </li>
  </ul>
</template>
