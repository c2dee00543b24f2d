<script setup lang="ts">
import { phrase } from '@/phrases/shared'
/** A picture as a table, for those who read rather than look. */
defineProps<{ head?: string[]; rows: string[][]; name?: string }>()
</script>

<template>
  <details class="mt-1 text-sm">
    <summary class="discloses">
      {{ phrase('shared.data_table.show_table') }}
    </summary>
    <div
      class="relative mt-2 max-h-72 overflow-auto"
      tabindex="0"
      role="region"
      :aria-label="name || phrase('shared.data_table.show_table')"
    >
      <table class="w-full">
        <thead>
          <tr class="text-left text-soft">
            <th v-for="h in head" :key="h" class="pr-4 pb-1 font-semibold">{{ h }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in rows" :key="i" class="border-t border-line">
            <td v-for="(cell, j) in row" :key="j" class="py-0.5 pr-4">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </details>
</template>
