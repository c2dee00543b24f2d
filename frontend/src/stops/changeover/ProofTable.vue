<script setup lang="ts">
import { phrase } from '@/phrases/changeover'

/** What was measured in the steps of the work, side by side. */
defineProps<{
  head: string[]
  rows: { key: string; cells: string[]; out: boolean }[]
}>()
</script>

<template>
  <table class="mt-1 w-full">
    <thead class="text-left text-sm text-soft">
      <tr>
        <th v-for="h in head" :key="h" class="pr-3 font-semibold">{{ h }}</th>
      </tr>
    </thead>
    <tbody class="divide-y divide-line border-y border-line">
      <tr v-for="r in rows" :key="r.key" class="align-top" :class="r.out ? 'text-blocking' : ''">
        <th scope="row" class="py-1 pr-3 text-left font-normal">{{ r.cells[0] }}</th>
        <td v-for="(c, i) in r.cells.slice(1)" :key="i" class="py-1 pr-3">
          <span v-if="c">{{ c }}</span>
          <span v-else class="text-soft">{{ phrase('changeover.proof.not_read') }}</span>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="rows.some((r) => r.cells.slice(1).some((c) => !c))" class="mt-1 text-sm text-soft">
    {{ phrase('changeover.proof.in_steps') }}
  </p>
</template>
