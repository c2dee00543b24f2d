<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import SeverityMark from '@/ui/SeverityMark.vue'
import UnsentBar from '@/ui/UnsentBar.vue'
import { useKeys } from '@/ui/useKeys'
import { Archive, ChevronLeft, ChevronRight, Moon, Search, Sun } from '@lucide/vue'
import { defineAsyncComponent, onMounted, ref } from 'vue'
import NewRig from './NewRig.vue'
import RigCard from './RigCard.vue'
import { useHarbor } from './useHarbor'
import WaitingRigs from './WaitingRigs.vue'

/** Seldom opened: it is loaded when it is. */
const KeptDialog = defineAsyncComponent(() => import('./KeptDialog.vue'))
/** From so many rigs on they can be searched. */
const MANY = 6
const ui = useUi()
const plan = usePlan()
const harbor = useHarbor()
const { cards, found, search, page, problems, load, turn, make, copy, remove, bring, demo } = harbor
const keptShown = ref(false)

onMounted(() => {
  document.title = 'Vast Harbor'
  load()
})
useKeys({ '?': () => (ui.keysShown = true) })

function dropped(event: DragEvent) {
  const file = event.dataTransfer?.files[0]
  if (file) bring(file)
}

function restored(rigs: number) {
  keptShown.value = false
  ui.say(`Restored: ${rigs === 1 ? '1 rig' : `${rigs} rigs`}.`)
  turn(1)
}
</script>

<template>
  <div @dragover.prevent @drop.prevent="dropped">
    <UnsentBar v-if="plan.unsent > plan.unmade.length" />
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
      <WaitingRigs />
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
      <div v-if="found.all > MANY" class="mt-6 flex flex-wrap items-center gap-3">
        <label class="relative w-full max-w-sm">
          <span class="sr-only">Search your rigs</span>
          <Search
            :size="16"
            class="pointer-events-none absolute top-1/2 left-3 -translate-y-1/2 text-soft"
            aria-hidden="true"
          />
          <input
            v-model="search"
            type="search"
            class="field pl-9"
            placeholder="Search by name, kind or notes"
            maxlength="200"
            data-search
          />
        </label>
        <span class="text-soft" aria-live="polite">{{
          search.trim() ? `${found.found} of ${found.all} rigs` : `${found.all} rigs`
        }}</span>
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
      <p v-else-if="cards && found.all" class="mt-10 text-center text-soft">
        No rig matches “{{ search.trim() }}”.
      </p>
      <section v-else-if="cards" class="mx-auto mt-16 max-w-xl text-center">
        <h2 class="text-2xl">No rig lies here yet</h2>
        <p class="mt-2 text-soft">
          Make one above: give it a name, then list what it uses on a day. Or look round first in
          five made-up rigs with different right answers.
        </p>
        <button type="button" class="btn mt-5" @click="demo">Load the demo rigs</button>
      </section>
      <nav
        v-if="found.pages > 1"
        class="mt-6 flex items-center justify-center gap-3"
        aria-label="Pages"
      >
        <button
          type="button"
          class="btn"
          :disabled="page <= 1"
          aria-label="Page before"
          @click="turn(page - 1)"
        >
          <ChevronLeft :size="16" />
        </button>
        <span>Page {{ page }} of {{ found.pages }}</span>
        <button
          type="button"
          class="btn"
          :disabled="page >= found.pages"
          aria-label="Next page"
          @click="turn(page + 1)"
        >
          <ChevronRight :size="16" />
        </button>
      </nav>
      <footer class="mt-10 flex flex-wrap items-center gap-2 border-t border-line pt-3">
        <button type="button" class="btn btn-quiet" @click="keptShown = true">
          <Archive :size="16" aria-hidden="true" /> Backup and restore
        </button>
        <RouterLink to="/about" class="btn btn-quiet">About</RouterLink>
      </footer>
    </main>
    <KeptDialog
      v-if="keptShown"
      open
      :rigs="found.all"
      @close="keptShown = false"
      @restored="restored"
      @bring-back="harbor.bringBack"
    />
  </div>
</template>
