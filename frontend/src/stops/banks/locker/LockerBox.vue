<script setup lang="ts">
/** A battery as a rectangle in a view of the locker. */
defineProps<{
  x: number
  y: number
  width: number
  height: number
  number: number
  size: number
  colour: string
  picked: boolean
  wrong: boolean
}>()
</script>

<template>
  <rect
    :x="x"
    :y="y"
    :width="width"
    :height="height"
    rx="6"
    fill="var(--sheet)"
    :stroke="wrong ? 'var(--blocking)' : colour"
    :stroke-width="picked ? 5 : 2.5"
    :stroke-dasharray="wrong ? '9 5' : undefined"
    vector-effect="non-scaling-stroke"
  />
  <slot />
  <text
    :x="x + width / 2"
    :y="y + height / 2 + size * 0.35"
    text-anchor="middle"
    :font-size="size"
    fill="var(--ink)"
    font-weight="600"
  >
    {{ number }}
  </text>
</template>
