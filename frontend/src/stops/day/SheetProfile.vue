<script setup lang="ts">
import { phrase } from '@/phrases/day'
import { usePlan } from '@/stores/plan'
import { grouped } from '@/ui/numbers'
import { computed, ref } from 'vue'
import { clock } from './useBlocks'

const plan = usePlan()
const day = computed(() => plan.rig!.day)
const HEIGHT = 120
const top = computed(() => Math.max(1, ...day.value.watts))
const total = computed(() => Math.max(1e-9, day.value.kwh.at(-1) ?? 0))
const at = ref<number | null>(null)

const y = (share: number) => (HEIGHT * (1 - share)).toFixed(2)

/** A filled step line under the powers given for the steps between the edges. */
function area(watts: number[]): string {
  const edges = day.value.edges_h
  const steps = watts.map(
    (w, i) => `L${edges[i]} ${y(w / top.value)}L${edges[i + 1]} ${y(w / top.value)}`,
  )
  return `M0 ${HEIGHT}${steps.join('')}L24 ${HEIGHT}Z`
}

const energy = computed(() =>
  day.value.kwh
    .map((kwh, i) => `${i ? 'L' : 'M'}${day.value.edges_h[i]} ${y(kwh / total.value)}`)
    .join(''),
)

const read = computed(() => {
  if (at.value === null) return null
  const edges = day.value.edges_h
  const i = Math.max(0, edges.findIndex((e, k) => k > 0 && e > at.value!) - 1)
  return {
    watts: day.value.watts[i] ?? 0,
    ac: day.value.ac_watts[i] ?? 0,
    from: clock(edges[i]!),
    to: clock(edges[i + 1] ?? 24),
    kwh: day.value.kwh[i + 1] ?? 0,
  }
})

function hover(event: PointerEvent) {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  at.value = Math.min(24, Math.max(0, ((event.clientX - box.left) / box.width) * 24))
}

function step(by: number) {
  at.value = Math.min(23.99, Math.max(0, (at.value ?? 12) + by))
}
</script>

<template>
  <div class="sheet-scale pt-2">
    <p class="pr-3 text-right text-sm leading-tight text-soft max-md:hidden">
      {{ phrase('day.sheet_profile.up_w', { top: grouped(top) }) }}<br />
      <span class="text-sea">DC</span>, <span class="text-caution">AC</span
      >{{ phrase('day.sheet_profile.energy_used_far_line') }}
    </p>
    <svg
      :viewBox="`0 0 24 ${HEIGHT}`"
      preserveAspectRatio="none"
      class="h-[120px] w-full max-md:col-start-2 rounded bg-well focus-visible:outline-2"
      role="img"
      tabindex="0"
      :aria-label="phrase('day.sheet_profile.power_bank_over_day')"
      @pointermove="hover"
      @pointerleave="at = null"
      @keydown.right.prevent="step(0.5)"
      @keydown.left.prevent="step(-0.5)"
    >
      <rect
        v-for="([from, to], i) in day.night"
        :key="i"
        :x="from"
        :width="to - from"
        y="0"
        :height="HEIGHT"
        fill="var(--ink)"
        opacity="0.07"
      />
      <path :d="area(day.watts)" fill="color-mix(in oklab, var(--caution) 55%, var(--sheet))" />
      <path
        :d="area(day.watts.map((w, i) => w - day.ac_watts[i]!))"
        fill="color-mix(in oklab, var(--sea) 60%, var(--sheet))"
      />
      <path
        :d="energy"
        fill="none"
        stroke="var(--ink)"
        stroke-width="1.8"
        stroke-dasharray="5 3"
        vector-effect="non-scaling-stroke"
      />
      <path
        v-if="at !== null"
        :d="`M${at} 0V${HEIGHT}`"
        stroke="var(--edge)"
        vector-effect="non-scaling-stroke"
      />
    </svg>
    <span class="max-md:hidden" />
    <span class="max-md:hidden" />
    <div class="flex justify-between text-sm text-soft max-md:col-start-2" aria-hidden="true">
      <span v-for="h in [0, 6, 12, 18, 24]" :key="h">{{ clock(h) }}</span>
    </div>
    <span class="max-md:hidden" />
    <span class="max-md:hidden" />
    <p class="min-h-6 text-sm max-md:col-start-2" aria-live="polite">
      <template v-if="read"
        >{{ phrase('day.sheet_profile.to', { from: read.from, to: read.to }) }}
        <b>{{ grouped(read.watts) }} W</b
        >{{ phrase('day.sheet_profile.w_through_inverter', { ac: grouped(read.ac) }) }}
        <b>{{ read.kwh.toFixed(2) }} kWh</b> {{ phrase('day.sheet_profile.far') }}</template
      >
    </p>
  </div>
</template>

<style scoped>
.sheet-scale {
  display: grid;
  grid-template-columns: 11rem 1fr 7.6rem;
  align-items: center;
}
@media (max-width: 767px) {
  .sheet-scale {
    grid-template-columns: 0 1fr 0;
  }
}
</style>
