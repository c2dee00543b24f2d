<script setup lang="ts">
import { phrase } from '@/phrases/harbor'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import SeverityMark from '@/ui/SeverityMark.vue'
import UnsentBar from '@/ui/UnsentBar.vue'
import { useKeys } from '@/ui/useKeys'
import {
  Archive,
  ChevronLeft,
  ChevronRight,
  Moon,
  Search,
  Ship,
  Smartphone,
  Sun,
  Trash2,
} from '@lucide/vue'
import { defineAsyncComponent, onMounted, onUnmounted, ref } from 'vue'
import NewRig from './NewRig.vue'
import RigCard from './RigCard.vue'
import { useHarbor } from './useHarbor'
import WaitingRigs from './WaitingRigs.vue'

/** Seldom opened: it is loaded when it is. */
const KeptDialog = defineAsyncComponent(() => import('./KeptDialog.vue'))
const PhonesDialog = defineAsyncComponent(() => import('./PhonesDialog.vue'))
const phonesShown = ref(false)
/** From so many rigs on they can be searched. */
const MANY = 6
const ui = useUi()
const plan = usePlan()
const harbor = useHarbor()
const {
  cards,
  found,
  search,
  page,
  problems,
  making,
  load,
  turn,
  make,
  copy,
  remove,
  bring,
  demo,
} = harbor
const keptShown = ref<'' | 'copies' | 'deleted'>('')

onMounted(() => {
  document.title = 'Vast Harbor'
  load()
})
useKeys({ '?': () => (ui.keysShown = true), 'ctrl+z': () => harbor.undoDelete() })
onUnmounted(() => harbor.leave())

function dropped(event: DragEvent) {
  const file = event.dataTransfer?.files[0]
  if (file) bring(file)
}

function restored(rigs: number) {
  keptShown.value = ''
  ui.say(
    phrase('harbor.harbor_page.restored', {
      rigs: phrase('harbor.harbor_page.counted', { count: rigs }),
    }),
  )
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
          {{ phrase('harbor.harbor_page.size_replacement_house_battery') }}
        </p>
      </div>
      <button
        type="button"
        class="btn btn-quiet btn-icon ml-auto"
        :aria-label="
          ui.night
            ? phrase('harbor.harbor_page.light_theme')
            : phrase('harbor.harbor_page.night_theme')
        "
        @click="ui.toggleTheme()"
      >
        <component :is="ui.night ? Sun : Moon" :size="18" />
      </button>
    </header>
    <main id="main" class="mx-auto max-w-[1240px] px-4 py-6">
      <NewRig :making="making" @make="make" @bring="bring" />
      <WaitingRigs />
      <div
        v-if="problems.length"
        class="sheet mt-4 flex gap-3 p-4"
        role="alert"
        style="border-color: var(--blocking)"
      >
        <SeverityMark severity="blocking" class="mt-0.5 shrink-0" />
        <ul class="space-y-1">
          <li v-for="p in problems" :key="p">{{ p }}</li>
        </ul>
      </div>
      <div v-if="found.all > MANY" class="mt-6 flex flex-wrap items-center gap-3">
        <label class="relative w-full max-w-sm">
          <span class="sr-only">{{ phrase('harbor.harbor_page.search_rigs') }}</span>
          <Search
            :size="16"
            class="pointer-events-none absolute top-1/2 left-3 -translate-y-1/2 text-soft"
            aria-hidden="true"
          />
          <input
            v-model="search"
            type="search"
            class="field pl-9"
            :placeholder="phrase('harbor.harbor_page.search_name_kind_notes')"
            maxlength="200"
            data-search
          />
        </label>
        <span class="text-soft" aria-live="polite">{{
          search.trim()
            ? phrase('harbor.harbor_page.rigs', { found: found.found, all: found.all })
            : phrase('harbor.harbor_page.all_rigs', { all: found.all })
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
        {{ phrase('harbor.harbor_page.rig_matches', { search: search.trim() }) }}
      </p>
      <section v-else-if="cards" class="mx-auto mt-16 max-w-xl text-center">
        <h2 class="text-2xl">{{ phrase('harbor.harbor_page.rigs_yet') }}</h2>
        <p class="mt-2 text-soft">
          {{ phrase('harbor.harbor_page.create_above_give_name') }}
        </p>
        <button type="button" class="btn mt-5" @click="demo">
          {{ phrase('harbor.harbor_page.load_demo_rigs') }}
        </button>
      </section>
      <nav
        v-if="found.pages > 1"
        class="mt-6 flex items-center justify-center gap-3"
        :aria-label="phrase('harbor.harbor_page.pages')"
      >
        <button
          type="button"
          class="btn"
          :disabled="page <= 1"
          :aria-label="phrase('harbor.harbor_page.previous_page')"
          @click="turn(page - 1)"
        >
          <ChevronLeft :size="16" />
        </button>
        <span>{{ phrase('harbor.harbor_page.page', { page, pages: found.pages }) }}</span>
        <button
          type="button"
          class="btn"
          :disabled="page >= found.pages"
          :aria-label="phrase('harbor.harbor_page.next_page')"
          @click="turn(page + 1)"
        >
          <ChevronRight :size="16" />
        </button>
      </nav>
      <footer class="mt-10 flex flex-wrap items-center gap-2 border-t border-line pt-3">
        <button type="button" class="btn btn-quiet" data-add-demo @click="demo">
          <Ship :size="16" aria-hidden="true" />
          {{ phrase('harbor.harbor_page.add_demo_rigs') }}
        </button>
        <button
          type="button"
          class="btn btn-quiet"
          data-deleted-rigs
          @click="keptShown = 'deleted'"
        >
          <Trash2 :size="16" aria-hidden="true" />
          {{ phrase('harbor.harbor_page.deleted_rigs') }}
        </button>
        <button type="button" class="btn btn-quiet" @click="keptShown = 'copies'">
          <Archive :size="16" aria-hidden="true" />
          {{ phrase('harbor.harbor_page.backup_restore') }}
        </button>
        <button type="button" class="btn btn-quiet" data-phones-button @click="phonesShown = true">
          <Smartphone :size="16" aria-hidden="true" />
          {{ phrase('harbor.harbor_page.phones') }}
        </button>
        <RouterLink to="/glossary" class="btn btn-quiet">{{
          phrase('harbor.harbor_page.glossary')
        }}</RouterLink>
        <RouterLink to="/about" class="btn btn-quiet">{{
          phrase('harbor.harbor_page.about')
        }}</RouterLink>
      </footer>
    </main>
    <PhonesDialog v-if="phonesShown" @close="phonesShown = false" />
    <KeptDialog
      v-if="keptShown"
      open
      :at="keptShown"
      :rigs="found.all"
      @close="keptShown = ''"
      @restored="restored"
      @bring-back="harbor.bringBack"
    />
  </div>
</template>
