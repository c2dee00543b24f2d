<script setup lang="ts">
import SheetLane from './SheetLane.vue'
import SheetProfile from './SheetProfile.vue'
import { useLoads } from '@/stores/useLoads'

const { loads, figures } = useLoads()
</script>

<template>
  <div data-sheet>
    <p class="mb-3 text-pretty text-soft">
      Drag a block to move it, its ends to stretch it; draw on a free place; hold Alt to copy, or
      touch a block and use its buttons. By keyboard: arrows move, with Shift stretch,
      <kbd>c</kbd> copies, <kbd>Delete</kbd> removes. Times are the usual ones, the same on all
      days, but for loads with a dot: those have their own on this day. Night is shaded.
    </p>
    <div class="space-y-1">
      <SheetLane
        v-for="(load, i) in loads"
        :key="load.id"
        :load="load"
        :index="i"
        :figures="figures.get(load.id)"
      />
    </div>
    <SheetProfile />
  </div>
</template>
