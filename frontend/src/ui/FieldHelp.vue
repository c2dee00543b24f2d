<script setup lang="ts">
import { api } from '@/api/client'
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { onMounted, onUnmounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { explained } from './terms'

/**
 * One small button that stands at the field which is typed into or pointed at, and opens its help; F1 does
 * the same. One for all fields, so that a page of hundreds of them costs nothing.
 */
const FIELDS = '[data-path], [data-help]'
const SIZE = 22
const plan = usePlan()
const route = useRoute()
const at = ref<{ left: string; top: string } | null>(null)
let field: HTMLElement | null = null
let focused: HTMLElement | null = null
let leaving = 0

function show(next: HTMLElement | null) {
  clearTimeout(leaving)
  field = next?.isConnected && plan.rig ? next : null
  place()
}

/** On the upper right corner of the field; of a box to tick, after its text. */
function place() {
  if (!field?.isConnected) {
    at.value = null
    return
  }
  const ticked = (field as HTMLInputElement).type === 'checkbox'
  const { right, top } = (
    (ticked && field.closest('label')?.querySelector('span')) ||
    field
  ).getBoundingClientRect()
  const left = Math.min(right + (ticked ? 4 : -SIZE / 2), window.innerWidth - SIZE - 2)
  at.value = { left: `${left}px`, top: `${top - (ticked ? 0 : SIZE / 2)}px` }
}

const fieldAt = (target: EventTarget | null) =>
  (target as Element | null)?.closest?.<HTMLElement>(FIELDS) ?? null

function pointed(event: PointerEvent) {
  if (event.pointerType === 'touch') return
  const next = fieldAt(event.target)
  if (next) show(next)
  else if (!(event.target as Element).closest?.('[data-opens-help]')) {
    clearTimeout(leaving)
    if (field && field !== focused) leaving = window.setTimeout(() => show(focused), 350)
  }
}

function entered(event: FocusEvent) {
  focused = fieldAt(event.target)
  if (!(event.target as Element).closest?.('[data-opens-help]')) show(focused)
}

function left() {
  focused = null
  clearTimeout(leaving)
  leaving = window.setTimeout(() => show(focused), 350)
}

function pressed(event: KeyboardEvent) {
  const here = event.key === 'F1' ? fieldAt(event.target) : null
  if (!here) return
  event.preventDefault()
  void open(here)
}

async function open(of: HTMLElement) {
  const path = of.dataset.path ?? of.dataset.help!
  if (explained.value?.key === path) {
    explained.value = null
    return
  }
  const title = (of as HTMLInputElement).labels?.[0]?.textContent?.trim() ?? ''
  const { data } = await api.GET('/api/rigs/{rig_id}/help', {
    params: { path: { rig_id: plan.rig!.id }, query: { field: path } },
  })
  if (!data || !of.isConnected) return
  explained.value = {
    key: path,
    title,
    says: [
      { text: data.what },
      { head: phrase('shared.field_help.where'), text: data.where },
      { head: phrase('shared.field_help.unknown'), text: data.unknown },
    ],
    at: of.getBoundingClientRect(),
  }
}

watch(
  () => route.fullPath,
  () => show(null),
)
onMounted(() => {
  document.addEventListener('pointerover', pointed, { passive: true })
  document.addEventListener('focusin', entered)
  document.addEventListener('focusout', left)
  document.addEventListener('keydown', pressed)
  window.addEventListener('scroll', place, { passive: true, capture: true })
  window.addEventListener('resize', place)
})
onUnmounted(() => {
  clearTimeout(leaving)
  document.removeEventListener('pointerover', pointed)
  document.removeEventListener('focusin', entered)
  document.removeEventListener('focusout', left)
  document.removeEventListener('keydown', pressed)
  window.removeEventListener('scroll', place, { capture: true })
  window.removeEventListener('resize', place)
})
</script>

<template>
  <button
    v-if="at"
    type="button"
    tabindex="-1"
    class="fixed z-30 grid place-items-center rounded-full border border-line bg-sheet text-xs leading-none font-semibold text-sea shadow-sm hover:border-sea print:hidden"
    :style="{ ...at, width: `${SIZE}px`, height: `${SIZE}px` }"
    :aria-label="phrase('shared.field_help.open')"
    :title="phrase('shared.field_help.open')"
    data-opens-help
    @pointerdown.prevent
    @click="field && open(field)"
  >
    ?
  </button>
</template>
