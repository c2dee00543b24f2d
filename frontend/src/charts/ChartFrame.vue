<script setup lang="ts">
import { onBeforeUnmount, shallowRef, watch } from 'vue'
import VChart from 'vue-echarts'
import DataTable from './DataTable.vue'
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
    <DataTable v-if="rows?.length" :name="title" :head="head" :rows="rows" />
  </figure>
</template>
