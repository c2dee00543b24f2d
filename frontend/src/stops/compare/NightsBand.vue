<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import type { Schemas } from '@/api/client'
import { useReference } from '@/stores/reference'
import { computed } from 'vue'

/** Which class the verdict says to buy along nights a year, or years kept, and where the owner is. */
const props = defineProps<{
  title: string
  changes: Schemas['VerdictChangeView'][]
  here: number
  text: string
  most: number
  /** Class that is bought all along where nothing changes. */
  buys: string
}>()
const reference = useReference()
/** Few and many are both told apart: the scale follows the square root. */
const at = (v: number) => Math.sqrt(Math.min(1, Math.max(0, v / props.most))) * 100
const nameOf = (key: string) =>
  reference.classes.get(key)?.short ?? phrase('compare.nights_band.none')
const stretches = computed(() => {
  const ends = [0, ...props.changes.map((c) => c.at.value ?? 0), props.most]
  const buys = props.changes.length
    ? [props.changes[0]!.buys_before, ...props.changes.map((c) => c.buys_after)]
    : [props.buys]
  return buys.map((key, i) => ({
    key,
    from: ends[i]!,
    to: ends[i + 1]!,
    left: at(ends[i]!),
    width: at(ends[i + 1]!) - at(ends[i]!),
    code: reference.classes.get(key)?.code ?? '–',
  }))
})
</script>

<template>
  <figure class="pt-5" data-band>
    <figcaption class="eyebrow">{{ title }}</figcaption>
    <div class="relative mt-6 h-9" role="img" :aria-label="title">
      <span
        v-for="s in stretches"
        :key="s.from"
        class="absolute inset-y-0 grid place-items-center overflow-hidden border-r-2 border-sheet text-sm font-bold text-sheet first:rounded-l last:rounded-r"
        :style="{
          left: `${s.left}%`,
          width: `${s.width}%`,
          background: s.key ? `var(--chem-${s.key})` : 'var(--soft)',
        }"
        :title="
          phrase('compare.nights_band.stretch', { from: s.from, to: s.to, name: nameOf(s.key) })
        "
        :data-stretch="s.key || 'none'"
        >{{ s.width > 3 ? s.code : '' }}</span
      >
      <span
        class="absolute -top-6 z-[1] text-sm whitespace-nowrap"
        :style="
          at(here) > 50
            ? { right: `calc(${100 - at(here)}% - 1px)`, textAlign: 'right' }
            : { left: `${at(here)}%` }
        "
        data-here
      >
        {{ phrase('compare.nights_band.here', { value: text }) }}
      </span>
      <span
        class="absolute -top-2 -bottom-2 w-[3px] bg-ink outline-2 outline-sheet"
        :style="{ left: `${at(here)}%` }"
      />
    </div>
    <div class="relative mt-3 h-5 text-sm text-soft" aria-hidden="true">
      <span class="absolute left-0">0</span>
      <span
        v-for="c in changes"
        :key="c.at.key"
        class="absolute -translate-x-1/2"
        :style="{ left: `${at(c.at.value ?? 0)}%` }"
        >{{ at(c.at.value ?? 0) > 3 && at(c.at.value ?? 0) < 94 ? c.at.value : '' }}</span
      >
      <span class="absolute right-0">{{ most }}</span>
    </div>
  </figure>
</template>
