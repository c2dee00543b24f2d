import { shelf } from './shelf'
import { defineStore } from 'pinia'
import { ref, watchEffect } from 'vue'

export interface Toast {
  id: number
  text: string
  action?: { label: string; run: () => void }
}

const THEME = 'vast-harbor-theme'
const KEYS = 'vast-harbor-single-keys'

/** Theme, passing messages and which side panel is open. */
export const useUi = defineStore('ui', () => {
  const night = ref(
    shelf.read(THEME) === 'night' ||
      (!shelf.read(THEME) && matchMedia('(prefers-color-scheme: dark)').matches),
  )
  /** Whether keys pressed alone do something. */
  const singleKeys = ref(shelf.read(KEYS) !== 'off')
  watchEffect(() => shelf.write(KEYS, singleKeys.value ? 'on' : 'off'))
  const toasts = ref<Toast[]>([])
  const workings = ref<string[]>([])
  const keysShown = ref(false)
  const paletteShown = ref(false)
  const changesShown = ref(false)
  const labelShown = ref(false)
  let next = 1

  watchEffect(() => {
    document.documentElement.dataset.theme = night.value ? 'night' : 'day'
  })

  function toggleTheme() {
    night.value = !night.value
    shelf.write(THEME, night.value ? 'night' : 'day')
  }

  function say(text: string, action?: Toast['action']) {
    const id = next++
    toasts.value = [...toasts.value.slice(-2), { id, text, action }]
    setTimeout(() => dismiss(id), action ? 12000 : 7000)
  }

  function dismiss(id: number) {
    toasts.value = toasts.value.filter((t) => t.id !== id)
  }

  function openWorkings(key: string) {
    workings.value = [key]
  }

  return {
    night,
    singleKeys,
    toasts,
    workings,
    keysShown,
    paletteShown,
    changesShown,
    labelShown,
    toggleTheme,
    say,
    dismiss,
    openWorkings,
  }
})
