<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { computed, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { explained } from './terms'

const WIDTH = 320
const card = ref<HTMLElement | null>(null)
const route = useRoute()

function outside(event: Event) {
  const at = event.target as Element
  if (explained.value && !card.value?.contains(at) && !at.closest?.('.term, [data-opens-help]'))
    explained.value = null
}

function escaped(event: KeyboardEvent) {
  if (event.key === 'Escape' && explained.value) {
    explained.value = null
    event.stopPropagation()
  }
}

watch(
  () => route.fullPath,
  () => (explained.value = null),
)
onMounted(() => {
  document.addEventListener('pointerdown', outside)
  document.addEventListener('keydown', escaped, true)
  window.addEventListener('scroll', outside, { passive: true })
})
onUnmounted(() => {
  document.removeEventListener('pointerdown', outside)
  document.removeEventListener('keydown', escaped, true)
  window.removeEventListener('scroll', outside)
})

/** Below what it explains, or above it near the foot of the window. */
const place = computed(() => {
  const { left, top, bottom } = explained.value!.at
  const { innerWidth, innerHeight } = window
  return {
    width: `${WIDTH}px`,
    left: `${Math.max(8, Math.min(left, innerWidth - WIDTH - 8))}px`,
    ...(bottom < innerHeight * 0.65
      ? { top: `${bottom + 6}px` }
      : { bottom: `${innerHeight - top + 6}px` }),
  }
})
</script>

<template>
  <div aria-live="polite">
    <div
      v-if="explained"
      ref="card"
      class="sheet fixed z-50 p-4 shadow-lg print:hidden"
      :style="place"
      data-explanation
    >
      <b class="block first-letter:uppercase">{{ explained.title }}</b>
      <p
        v-for="(part, i) in explained.says"
        :key="i"
        class="leading-snug"
        :class="i ? 'mt-1.5 text-soft' : ''"
      >
        <b v-if="part.head" class="block text-sm font-semibold text-ink">{{ part.head }}</b>
        {{ part.text }}
      </p>
      <p class="mt-2 text-sm">
        <RouterLink class="text-sea underline" :to="{ name: 'glossary' }">{{
          phrase('shared.explanation_card.glossary')
        }}</RouterLink>
      </p>
    </div>
  </div>
</template>
