<script setup lang="ts">
import { onBeforeUnmount, shallowRef, watch } from 'vue'
import VChart from 'vue-echarts'
import './setup'

const props = defineProps<{
  title: string
  option: Record<string, unknown>
  height: number
  /** The same as a table, for those who read rather than look. */
  head?: string[]
  rows?: string[][]
}>()

/** Pictures follow a moment after the figures, so that typing is not held up by drawing. */
const LAG = 120
const drawn = shallowRef(props.option)
let timer = 0
watch(
  () => props.option,
  (option) => {
    clearTimeout(timer)
    timer = window.setTimeout(() => (drawn.value = option), LAG)
  },
)
onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <figure class="min-w-0">
    <figcaption class="mb-1 font-semibold">{{ title }}</figcaption>
    <slot />
    <VChart
      :option="drawn"
      :update-options="{ notMerge: true }"
      autoresize
      :style="{ height: `${height}px` }"
      :aria-label="title"
      role="img"
    />
    <details v-if="rows?.length" class="mt-1 text-sm">
      <summary class="text-soft underline decoration-dotted underline-offset-4">As a table</summary>
      <div class="relative mt-2 max-h-72 overflow-auto">
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
  </figure>
</template>
