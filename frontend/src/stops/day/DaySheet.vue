<script setup lang="ts">
import { phrase } from '@/phrases/day'
import SheetLane from './SheetLane.vue'
import SheetProfile from './SheetProfile.vue'
import { useLoads } from '@/stores/useLoads'

const { loads, figures } = useLoads()
</script>

<template>
  <div data-sheet>
    <p class="mb-3 text-pretty text-soft">
      {{ phrase('day.day_sheet.drag_block_move_ends') }}
      <kbd>c</kbd> {{ phrase('day.day_sheet.copies') }}
      <kbd>{{ phrase('day.day_sheet.delete') }}</kbd>
      {{ phrase('day.day_sheet.removes_usual_times_same') }}
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
