<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { Schemas } from '@/api/client'
import { computed, ref } from 'vue'
import LockerBox from './LockerBox.vue'
import type { Box } from './useBoxes'

const props = defineProps<{
  name: string
  room: Schemas['RoomView']
  boxes: Box[]
  side: number
  over: number
  picked: number | null
  batteryClass: string
  terminalSide: string
}>()
const emit = defineEmits<{
  pick: [number: number]
  move: [number: number, x: number, y: number]
  drop: [number: number]
  turn: [number: number]
}>()
const STEP = 5
const edge = computed(() => Math.max(props.room.length, props.room.width, props.room.height) * 0.03)
const frame = (height: number) =>
  `${-edge.value} ${-edge.value} ${props.room.length + 2 * edge.value} ${height + 2 * edge.value}`
const type = computed(() => Math.max(22, Math.min(60, props.room.length / 22)))
const colour = computed(() => `var(--chem-${props.batteryClass})`)
const held = ref<{ number: number; dx: number; dy: number; moved: boolean } | null>(null)

function at(event: PointerEvent): { x: number; y: number } {
  const svg = (event.currentTarget as SVGElement).closest('svg')!
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(
    svg.getScreenCTM()!.inverse(),
  )
  return { x: point.x, y: point.y }
}

function grab(event: PointerEvent, box: Box) {
  const here = at(event)
  held.value = { number: box.number, dx: here.x - box.x, dy: here.y - box.y, moved: false }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  emit('pick', box.number)
}

/** A box stops at the walls' clearances where it comes near them. */
function snap(value: number, least: number, most: number): number {
  if (Math.abs(value - least) < 12) return least
  if (Math.abs(value - most) < 12) return most
  return value
}

function drag(event: PointerEvent, box: Box) {
  if (held.value?.number !== box.number) return
  const here = at(event)
  const x = snap(here.x - held.value.dx, props.side, props.room.length - props.side - box.length)
  const y = snap(here.y - held.value.dy, props.side, props.room.width - props.side - box.width)
  held.value.moved = true
  emit('move', box.number, x, y)
}

function release() {
  if (held.value?.moved) emit('drop', held.value.number)
  held.value = null
}

function key(event: KeyboardEvent, box: Box) {
  const by = {
    ArrowLeft: [-STEP, 0],
    ArrowRight: [STEP, 0],
    ArrowUp: [0, -STEP],
    ArrowDown: [0, STEP],
  }[event.key]
  if (event.key === 'r') emit('turn', box.number)
  else if (by) {
    event.preventDefault()
    emit('move', box.number, box.x + by[0]!, box.y + by[1]!)
    emit('drop', box.number)
  }
}

/** Where the terminals are, seen from above, on a standing box. */
function terminals(b: Box): { x: number; y: number }[] {
  if (b.pose !== 'upright') return []
  const [l, w] = b.turned ? [b.width, b.length] : [b.length, b.width]
  const inset = Math.min(l, w) * 0.16
  const spots = {
    ends: [
      [inset, w / 2],
      [l - inset, w / 2],
    ],
    one_end: [
      [inset, w * 0.3],
      [inset, w * 0.7],
    ],
    long_side: [
      [inset, w - inset],
      [l - inset, w - inset],
    ],
  }[props.terminalSide] ?? [[inset, w / 2]]
  return spots.map(([x, y]) =>
    b.turned ? { x: b.x + y!, y: b.y + x! } : { x: b.x + x!, y: b.y + y! },
  )
}
const says = (b: Box) =>
  phrase('banks.locker_room.battery_mm_left_mm', {
    number: b.number,
    x: Math.round(b.x),
    y: Math.round(b.y),
  })
const behind = computed(() => [...props.boxes].sort((a, b) => a.y - b.y))
</script>

<template>
  <section>
    <h2 class="text-lg">
      {{ name || phrase('banks.locker_room.locker') }}
      <span class="font-sans text-base font-normal text-soft">{{ room.text }}</span>
    </h2>
    <div class="mt-2 grid gap-5 lg:grid-cols-2">
      <figure class="min-w-0">
        <figcaption class="eyebrow mb-1">{{ phrase('banks.locker_room.above') }}</figcaption>
        <svg
          :viewBox="frame(room.width)"
          class="max-h-[60vh] w-full touch-none select-none"
          :style="{ aspectRatio: `${room.length} / ${room.width}` }"
          role="group"
          :aria-label="phrase('banks.locker_room.batteries_above')"
        >
          <rect
            x="0"
            y="0"
            :width="room.length"
            :height="room.width"
            fill="var(--well)"
            stroke="var(--ink)"
            stroke-width="3"
            vector-effect="non-scaling-stroke"
          />
          <rect
            :x="side"
            :y="side"
            :width="Math.max(0, room.length - 2 * side)"
            :height="Math.max(0, room.width - 2 * side)"
            fill="none"
            stroke="var(--edge)"
            stroke-dasharray="5 5"
            vector-effect="non-scaling-stroke"
          />
          <g
            v-for="b in boxes"
            :key="b.number"
            tabindex="0"
            role="button"
            :aria-label="says(b)"
            :aria-pressed="picked === b.number"
            :data-box="b.number"
            class="cursor-grab outline-none"
            @pointerdown="grab($event, b)"
            @pointermove="drag($event, b)"
            @pointerup="release"
            @pointercancel="release"
            @focus="$emit('pick', b.number)"
            @keydown="key($event, b)"
          >
            <LockerBox
              :x="b.x"
              :y="b.y"
              :width="b.length"
              :height="b.width"
              :number="b.number"
              :size="type"
              :colour="colour"
              :picked="picked === b.number"
              :wrong="b.wrong !== ''"
            >
              <circle
                v-for="(t, i) in terminals(b)"
                :key="i"
                :cx="t.x"
                :cy="t.y"
                :r="type * 0.28"
                :fill="i ? 'var(--blocking)' : 'var(--sea)'"
              />
            </LockerBox>
          </g>
        </svg>
      </figure>
      <figure class="min-w-0">
        <figcaption class="eyebrow mb-1">{{ phrase('banks.locker_room.front') }}</figcaption>
        <svg
          :viewBox="frame(room.height)"
          class="max-h-[60vh] w-full"
          :style="{ aspectRatio: `${room.length} / ${room.height}` }"
          role="img"
          :aria-label="phrase('banks.locker_room.batteries_front')"
        >
          <rect
            x="0"
            y="0"
            :width="room.length"
            :height="room.height"
            fill="var(--well)"
            stroke="var(--ink)"
            stroke-width="3"
            vector-effect="non-scaling-stroke"
          />
          <g v-for="b in behind" :key="b.number">
            <rect
              v-if="b.pose === 'upright'"
              :x="b.x"
              :y="room.height - b.height - over"
              :width="b.length"
              :height="over"
              fill="none"
              stroke="var(--edge)"
              stroke-dasharray="5 5"
              vector-effect="non-scaling-stroke"
            />
            <LockerBox
              :x="b.x"
              :y="room.height - b.height"
              :width="b.length"
              :height="b.height"
              :number="b.number"
              :size="type"
              :colour="colour"
              :picked="picked === b.number"
              :wrong="b.wrong !== ''"
            />
          </g>
        </svg>
        <p class="mt-1 text-sm text-soft">
          {{ phrase('banks.locker_room.dashed_clearance_sides_above') }}
        </p>
      </figure>
    </div>
  </section>
</template>
