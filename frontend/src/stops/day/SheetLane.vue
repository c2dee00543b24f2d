<script setup lang="ts">
import { phrase } from '@/phrases/day'
import type { Schemas } from '@/api/client'
import FigureLink from '@/ui/FigureLink.vue'
import IconButton from '@/ui/IconButton.vue'
import { CopyPlus, Plus, Trash2 } from '@lucide/vue'
import { computed, ref, watch } from 'vue'
import { clock, useBlocks, type Block } from './useBlocks'
import NightShade from './NightShade.vue'
import type { Load } from '@/api/rigFile'
import { useLoads } from '@/stores/useLoads'

const props = defineProps<{ load: Load; index: number; figures?: Schemas['LoadView'] }>()
const track = ref<HTMLElement | null>(null)
const { blocks, dragging, grab, drag, release, key, copy, remove, add } = useBlocks(
  () => props.load,
  () => props.index,
  () => (props.figures?.blocks ?? []) as Block[],
  () => track.value,
)
const all = computed(
  () => blocks.value.length === 1 && blocks.value[0]![1] - blocks.value[0]![0] >= 24,
)
const ac = computed(() => props.load.supply === 'ac')
/** The time that is in focus, for those who have no Alt key and no Delete key under their finger. */
const picked = ref<number | null>(null)
const lane = ref<HTMLElement | null>(null)

function left(event: FocusEvent) {
  if (!lane.value?.contains(event.relatedTarget as Node | null)) picked.value = null
}

// A block that is gone tells nobody that it lost the focus.
watch(
  () => blocks.value.length,
  (now, before) => {
    if (now < before) picked.value = null
  },
)
const { onDay } = useLoads()
const own = computed(() => onDay(props.load) === 'own')
</script>

<template>
  <div ref="lane" class="lane" :data-lane="load.id" @focusout="left">
    <div class="flex min-w-0 items-center gap-1.5 pr-2">
      <span class="w-6 shrink-0 text-xs font-bold" :class="ac ? 'text-caution' : 'text-sea'">{{
        load.supply.toUpperCase()
      }}</span>
      <span class="truncate" :title="load.name">{{ load.name }}</span>
      <span
        v-if="own"
        class="size-1.5 shrink-0 rounded-full bg-sea"
        :title="phrase('day.sheet_lane.own_times_day')"
      />
    </div>
    <div
      ref="track"
      class="track"
      :class="ac ? 'ac' : 'dc'"
      @pointerdown="grab($event, 'draw', -1)"
      @pointermove="drag"
      @pointerup="release"
      @pointercancel="release"
    >
      <NightShade />
      <div
        v-for="([start, end], i) in blocks"
        :key="i"
        role="button"
        tabindex="0"
        class="slot"
        :class="{ all, held: dragging }"
        :style="{ left: `${(start / 24) * 100}%`, width: `${((end - start) / 24) * 100}%` }"
        :aria-label="
          phrase('day.sheet_lane.arrow_keys_move_shift', {
            name: load.name,
            start: clock(start),
            end: clock(end),
          })
        "
        :title="`${clock(start)} to ${clock(end)}`"
        data-block
        @focus="picked = i"
        @pointerdown="grab($event, 'move', i)"
        @keydown="key($event, i)"
      >
        <span class="grip -left-0.5" @pointerdown="grab($event, 'start', i)" />
        <span class="grip -right-0.5" @pointerdown="grab($event, 'end', i)" />
      </div>
    </div>
    <div class="flex items-center justify-end gap-1 pl-2">
      <FigureLink
        v-if="figures"
        :figure="figures.wh"
        :name="load.name"
        class="text-sm whitespace-nowrap"
      />
      <template v-if="picked !== null && blocks[picked]">
        <IconButton
          small
          :icon="CopyPlus"
          :label="phrase('day.sheet_lane.copy_time', { name: load.name })"
          @click="copy(picked)"
        />
        <IconButton
          small
          :icon="Trash2"
          :label="phrase('day.sheet_lane.remove_time', { name: load.name })"
          @click="remove(picked)"
        />
      </template>
      <IconButton
        v-else
        small
        :icon="Plus"
        :label="phrase('day.sheet_lane.add_time', { name: load.name })"
        @click="add"
      />
    </div>
  </div>
</template>

<style scoped>
.lane {
  display: grid;
  grid-template-columns: 11rem 1fr 7.6rem;
  align-items: center;
}
.track {
  position: relative;
  height: 1.9rem;
  touch-action: pan-y;
  cursor: crosshair;
  border-radius: 4px;
  background:
    repeating-linear-gradient(to right, var(--line) 0 1px, transparent 1px calc(100% / 24)) 0 0 /
      100% 100%,
    var(--well);
}
.slot {
  position: absolute;
  inset-block: 3px;
  min-width: 4px;
  border-radius: 4px;
  cursor: grab;
  touch-action: none;
}
.slot.held {
  cursor: grabbing;
}
.dc .slot {
  background: color-mix(in oklab, var(--sea) 62%, var(--sheet));
  border: 1px solid var(--sea);
}
.ac .slot {
  background: repeating-linear-gradient(
    135deg,
    color-mix(in oklab, var(--caution) 62%, var(--sheet)) 0 6px,
    color-mix(in oklab, var(--caution) 40%, var(--sheet)) 6px 9px
  );
  border: 1px solid var(--caution);
}
.slot.all {
  opacity: 0.55;
}
.grip {
  position: absolute;
  inset-block: 0;
  width: min(9px, 40%);
  cursor: ew-resize;
  touch-action: none;
}
@media (max-width: 767px) {
  .lane {
    grid-template-columns: 1fr auto;
    row-gap: 0.15rem;
    padding-block: 0.3rem;
  }
  .lane .track {
    grid-row: 2;
    grid-column: 1 / -1;
    height: 2.4rem;
  }
}
</style>
