<script setup lang="ts">
import { computed } from 'vue'

/** A line drawing of the kind of rig, with its bank in the colour of its class. */
const props = defineProps<{ kind: string; batteryClass: string }>()
const WHEEL = 9
interface Drawing {
  lines: string[]
  wheels: number[]
  bank: [number, number]
}
const DRAWINGS: Record<string, Drawing> = {
  van: {
    lines: [
      'M30 70V36q0-14 14-14h140q12 0 21 9l22 22q23 3 23 15v2z',
      'M176 32h8q6 0 10 4l16 17h-34z',
      'M118 22v48',
    ],
    wheels: [72, 206],
    bank: [132, 50],
  },
  rv: {
    lines: [
      'M20 70V22q0-10 10-10h206q10 0 13 10l3 10q-10 0-12 8l18 12q2 2 2 6v12z',
      'M40 26h36v16h-36zM96 26h36v16h-36z',
    ],
    wheels: [64, 212],
    bank: [112, 52],
  },
  caravan: {
    lines: [
      'M44 68V42q0-26 26-26h120q26 0 32 30v22z',
      'M64 32h44v16h-44zM136 30h24v38h-24z',
      'M222 66h34v8',
    ],
    wheels: [122],
    bank: [178, 52],
  },
  boat: {
    lines: [
      'M26 50h228q-12 24-42 26h-136q-36-2-50-26z',
      'M150 50V4l-62 42zM156 10l48 36h-48z',
      'M14 80q12-5 24 0t24 0 24 0 24 0 24 0 24 0 24 0 24 0 24 0 24 0',
    ],
    wheels: [],
    bank: [112, 56],
  },
  cabin: {
    lines: [
      'M70 76V42l70-32 70 32v34z',
      'M54 50l86-40 86 40',
      'M156 76v-28h22v28M90 48h28v-2h-28z',
    ],
    wheels: [],
    bank: [104, 60],
  },
  other: {
    lines: ['M24 70V16h150v54z', 'M180 70V34h34l28 22v14z', 'M190 42h20l14 12h-34z'],
    wheels: [66, 212],
    bank: [92, 50],
  },
}
const drawing = computed(() => DRAWINGS[props.kind] ?? DRAWINGS.other!)
</script>

<template>
  <svg viewBox="0 0 280 88" class="h-12 w-auto text-edge" aria-hidden="true">
    <g fill="none" stroke="currentColor" stroke-width="2.5" stroke-linejoin="round">
      <path v-for="d in drawing.lines" :key="d" :d="d" />
      <circle v-for="x in drawing.wheels" :key="x" :cx="x" cy="72" :r="WHEEL" fill="var(--sheet)" />
    </g>
    <g
      v-if="batteryClass"
      :transform="`translate(${drawing.bank[0]} ${drawing.bank[1]})`"
      :fill="`var(--chem-${batteryClass})`"
    >
      <path d="M5-3h6v3h-6zM19-3h6v3h-6z" />
      <rect width="30" height="15" rx="2.5" />
    </g>
  </svg>
</template>
