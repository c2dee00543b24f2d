<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { onMounted } from 'vue'
import { useReference } from './stores/reference'
import { shelf } from './stores/shelf'
import { useUi } from './stores/ui'
import ExplanationCard from './ui/ExplanationCard.vue'
import FieldHelp from './ui/FieldHelp.vue'
import KeyMap from './ui/KeyMap.vue'
import OfflineBar from './ui/OfflineBar.vue'
import ToastStack from './ui/ToastStack.vue'

const reference = useReference()
onMounted(() => {
  void reference.load()
  if (!shelf.works()) useUi().say(phrase('shared.shelf.nothing'))
})

/** Past the strip, to what the page is about. */
function skip() {
  const main = document.querySelector<HTMLElement>('main')
  if (!main) return
  main.tabIndex = -1
  main.focus()
  main.scrollIntoView()
}
</script>

<template>
  <a
    href="#main"
    class="sr-only z-50 rounded bg-sea px-4 py-2 font-semibold text-onsea focus:not-sr-only focus:fixed focus:top-2 focus:left-2"
    data-skip
    @click.prevent="skip"
    >{{ phrase('shared.app.skip') }}</a
  >
  <OfflineBar />
  <RouterView />
  <ToastStack />
  <ExplanationCard />
  <FieldHelp />
  <KeyMap />
</template>
