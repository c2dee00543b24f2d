<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { computed } from 'vue'
import type { Entry } from './useLog'

/** One round with the meter in a row: what each battery read; the single entries unfold. */
const props = defineProps<{ entries: Entry[] }>()
const read = computed(() =>
  [...props.entries]
    .sort((a, b) => a.battery - b.battery)
    .map((e) => ({
      battery: e.battery,
      says: e.said
        .filter((s) => s.field !== 'battery' && s.field !== 'rested')
        .map((s) => s.text)
        .join(', '),
    })),
)
const rested = computed(() => props.entries.every((e) => e.rested))
const clock = computed(() => {
  const first = props.entries.at(-1)!
  return new Date((first.at + 60 * first.offset_min) * 1000).toISOString().slice(11, 16)
})
</script>

<template>
  <details data-entry-round>
    <summary class="discloses flex w-full items-start py-2 text-ink">
      <span class="w-12 shrink-0 text-soft">{{ clock }}</span>
      <span class="flex min-w-0 flex-wrap gap-x-4 leading-snug">
        <b>{{ rested ? phrase('log.rounds.read_rested') : phrase('log.rounds.read') }}</b>
        <span v-for="r in read" :key="r.battery" class="whitespace-nowrap"
          ><span class="text-soft">{{ r.battery }}:</span> {{ r.says }}</span
        >
      </span>
    </summary>
    <div class="ml-5 divide-y divide-line border-t border-line"><slot /></div>
  </details>
</template>
