<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import type { Schemas } from '@/api/client'
import { CarFront, Cloud, CloudSun, DoorClosed, PlugZap, Sun } from '@lucide/vue'

defineProps<{ days: Schemas['TrialDayView'][]; left: number; right: number }>()
const ICONS = { sunny: Sun, mixed: CloudSun, overcast: Cloud }
const icon = (weather: string) => ICONS[weather as keyof typeof ICONS]
</script>

<template>
  <ol
    class="flex text-sm text-soft"
    :style="{ marginLeft: `${left}px`, marginRight: `${right}px` }"
    :aria-label="phrase('trial.day_strip.days')"
  >
    <li
      v-for="(d, i) in days"
      :key="i"
      class="flex min-w-0 flex-1 flex-col items-center overflow-hidden border-l border-line py-0.5 leading-tight"
      :title="
        phrase('trial.day_strip.place', {
          name: d.name,
          weather: d.weather,
          air: d.air,
          kind: d.kind,
          pitch: d.pitch,
        })
      "
    >
      <component :is="icon(d.weather)" :size="days.length > 20 ? 13 : 17" aria-hidden="true" />
      <span class="sr-only">{{ d.name }}, {{ d.weather }}, {{ d.air }}, {{ d.kind }}</span>
      <span v-if="days.length <= 10" class="max-sm:hidden" aria-hidden="true">{{ d.air }}</span>
      <span class="h-4" aria-hidden="true">
        <PlugZap v-if="d.kind === 'on hook-up'" :size="14" class="text-sea" />
        <CarFront v-else-if="d.drives" :size="14" />
        <DoorClosed v-else-if="d.kind === 'laid up'" :size="14" />
      </span>
    </li>
  </ol>
</template>
