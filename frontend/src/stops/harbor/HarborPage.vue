<script setup lang="ts">
import { useUi } from '@/stores/ui'
import SeverityMark from '@/ui/SeverityMark.vue'
import { useKeys } from '@/ui/useKeys'
import { Moon, Sun } from '@lucide/vue'
import { onMounted } from 'vue'
import NewRig from './NewRig.vue'
import RigCard from './RigCard.vue'
import { useHarbor } from './useHarbor'

const ui = useUi()
const { cards, problems, load, make, copy, remove, bring, demo } = useHarbor()

onMounted(() => {
  document.title = 'Vast Harbor'
  load()
})
useKeys({ '?': () => (ui.keysShown = true) })

function dropped(event: DragEvent) {
  const file = event.dataTransfer?.files[0]
  if (file) bring(file)
}
</script>

<template>
  <div @dragover.prevent @drop.prevent="dropped">
    <header class="mx-auto flex max-w-[1240px] items-start gap-4 px-4 pt-8">
      <img src="/mark.svg" alt="" width="52" height="52" />
      <div class="min-w-0">
        <h1 class="text-3xl">Vast Harbor</h1>
        <p class="max-w-3xl text-pretty text-soft">
          Size a replacement house battery bank from your own day, and see which one costs you least
          over the years: lead-acid or lithium iron phosphate.
        </p>
      </div>
      <button
        type="button"
        class="btn btn-quiet btn-icon ml-auto"
        :aria-label="ui.night ? 'Light theme' : 'Night theme'"
        @click="ui.toggleTheme()"
      >
        <component :is="ui.night ? Sun : Moon" :size="18" />
      </button>
    </header>
    <main class="mx-auto max-w-[1240px] px-4 py-6">
      <NewRig @make="make" @bring="bring" />
      <div
        v-if="problems.length"
        class="sheet mt-4 flex gap-3 p-4"
        role="alert"
        style="border-color: var(--stop)"
      >
        <SeverityMark severity="stop" class="mt-0.5 shrink-0" />
        <ul class="space-y-1">
          <li v-for="p in problems" :key="p">{{ p }}</li>
        </ul>
      </div>
      <section v-if="cards?.length" class="mt-6 grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
        <RigCard
          v-for="c in cards"
          :key="c.id"
          :card="c"
          @copy="copy(c.id)"
          @remove="remove(c.id)"
        />
      </section>
      <section v-else-if="cards" class="mx-auto mt-16 max-w-xl text-center">
        <h2 class="text-2xl">No rig lies here yet</h2>
        <p class="mt-2 text-soft">
          Make one above: give it a name, then list what it uses on a day. Or look round first in
          five made-up rigs with different right answers.
        </p>
        <button type="button" class="btn mt-5" @click="demo">Load the demo rigs</button>
      </section>
    </main>
  </div>
</template>
