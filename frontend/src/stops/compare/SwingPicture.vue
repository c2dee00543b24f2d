<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

/** How far each assumption over its range moves the saving: the longest bar first. */
const props = defineProps<{ tornado: Schemas['TornadoView'] }>()
const plan = usePlan()
const MOST = 12
const banks = computed(() => {
  const { compared_banks, verdict } = plan.rig!.compare
  return [...compared_banks, ...verdict.found]
})
const title = (id: string) => banks.value.find((c) => c.id === id)?.title ?? ''
const shown = computed(() => props.tornado.swings.slice(0, MOST))
const base = computed(() => props.tornado.saving.value ?? 0)
const ends = computed(() => {
  const all = shown.value.flatMap((s) => [s.at_low.value ?? 0, s.at_high.value ?? 0])
  const low = Math.min(0, base.value, ...all)
  const high = Math.max(0, base.value, ...all)
  const pad = (high - low || 1) * 0.03
  return [low - pad, high + pad] as const
})
const at = (v: number) => ((v - ends.value[0]) / (ends.value[1] - ends.value[0])) * 100
const bar = (s: Schemas['SwingView']) => {
  const [a, b] = [s.at_low.value ?? 0, s.at_high.value ?? 0]
  return { left: `${at(Math.min(a, b))}%`, width: `${Math.max(0.6, Math.abs(at(a) - at(b)))}%` }
}
</script>

<template>
  <figure data-tornado>
    <figcaption>
      <h2 class="text-xl">{{ phrase('compare.swing_picture.affects_verdict') }}</h2>
      <p class="text-sm text-pretty text-soft">
        {{
          phrase('compare.swing_picture.saves_compared_planned', {
            winner: title(tornado.winner),
            rival: title(tornado.rival),
          })
        }}
        <FigureLink :figure="tornado.saving" class="font-semibold text-ink" />{{
          phrase('compare.swing_picture.bar_moves_assumption_through')
        }}
      </p>
    </figcaption>
    <ul class="mt-3 space-y-2.5">
      <li v-for="s in shown" :key="s.key" :data-swing="s.key">
        <p class="text-sm leading-tight">
          {{ s.name }}
          <b v-if="s.changes_winner" class="font-semibold text-caution">{{
            phrase('compare.swing_picture.changes_verdict')
          }}</b>
        </p>
        <div class="relative mt-0.5 h-4 rounded bg-well">
          <span
            class="absolute inset-y-0.5 rounded-sm"
            :class="s.changes_winner ? 'bg-caution' : 'bg-sea'"
            :style="bar(s)"
            :title="`${s.at_low.text} to ${s.at_high.text}`"
          />
          <span class="absolute inset-y-0 w-0.5 bg-ink" :style="{ left: `${at(0)}%` }" />
          <span class="absolute inset-y-0 w-px bg-edge" :style="{ left: `${at(base)}%` }" />
        </div>
        <p class="flex justify-between gap-4 text-sm text-soft">
          <span
            ><FigureLink :figure="s.low" />:
            <FigureLink :figure="s.at_low" :name="phrase('compare.swing_picture.saving_end')"
          /></span>
          <span
            ><FigureLink :figure="s.high" />:
            <FigureLink :figure="s.at_high" :name="phrase('compare.swing_picture.saving_end')"
          /></span>
        </p>
      </li>
    </ul>
  </figure>
</template>
