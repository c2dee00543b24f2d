<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { STOP_NAMES, STOPS, type Stop } from '@/api/lists'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { FlaskConical, Moon, Redo2, Search, Sun, Undo2 } from '@lucide/vue'
import { computed, nextTick, ref, watch } from 'vue'
import IconButton from './IconButton.vue'
import { useScrolledAway } from './useScrolledAway'
import SeverityMark from './SeverityMark.vue'

const props = defineProps<{ stop: Stop }>()
const plan = usePlan()
const ui = useUi()
const rail = ref<HTMLElement | null>(null)

const stops = computed(() =>
  STOPS.map((name) => ({ name, view: plan.rig?.strip.find((s) => s.stop === name) })),
)

/** What was typed and cannot be, on any stop. */
const refused = computed(() => Object.values(plan.drafts).filter((d) => d.message).length)
const away = useScrolledAway()

watch(
  [() => props.stop, () => plan.rig?.id],
  async () => {
    await nextTick()
    const here = rail.value?.querySelector<HTMLElement>('[aria-current]')
    if (here && rail.value)
      rail.value.scrollLeft = here.offsetLeft - rail.value.clientWidth / 2 + here.offsetWidth / 2
  },
  { immediate: true },
)
</script>

<template>
  <header
    class="leaves sticky top-0 z-20 border-b border-line bg-sheet transition-transform duration-200 xl:translate-y-0!"
    :class="away ? '-translate-y-full' : ''"
    @focusin="away = false"
  >
    <div
      class="mx-auto flex max-w-[1240px] flex-wrap items-center gap-x-4 px-4 xl:max-w-[1480px] xl:flex-nowrap xl:gap-x-3"
    >
      <RouterLink
        to="/"
        class="flex min-w-0 shrink grow basis-0 items-center gap-2 py-0.5 xl:grow-0 xl:basis-auto xl:shrink-0 xl:py-2"
        :title="phrase('shared.passage_strip.rigs')"
      >
        <img src="/mark.svg" alt="" width="30" height="30" />
        <span class="min-w-0 leading-tight">
          <span class="block text-sm text-soft">Vast Harbor</span>
          <span
            class="block max-w-[10rem] truncate font-serif font-semibold xl:max-w-[6.5rem] 2xl:max-w-[10rem]"
            >{{ plan.document?.rig.name }}</span
          >
        </span>
      </RouterLink>
      <nav
        ref="rail"
        :aria-label="phrase('shared.passage_strip.passage')"
        class="relative order-last -mx-4 flex w-[calc(100%+2rem)] overflow-x-auto px-2 xl:order-none xl:mx-0 xl:w-auto xl:grow xl:px-0"
      >
        <RouterLink
          v-for="(s, i) in stops"
          :key="s.name"
          :to="{ name: 'rig', params: { id: plan.rig?.id, stop: s.name } }"
          class="group relative min-w-[7.2rem] shrink-0 grow basis-auto px-1.5 pt-1 pb-1 hover:bg-wash xl:pt-2.5 xl:pb-2 xl:min-w-[4.6rem] xl:shrink xl:px-1"
          :aria-current="s.name === stop ? 'step' : undefined"
          :data-stop="s.name"
        >
          <span class="flex items-center gap-2 xl:gap-1 2xl:gap-1.5">
            <span
              class="grid size-6 shrink-0 place-items-center rounded-full border-2 border-sea text-sm font-bold xl:size-5 xl:text-xs 2xl:size-6 2xl:text-sm"
              :class="s.name === stop ? 'bg-sea text-onsea' : 'bg-sheet text-sea'"
              >{{ i + 1 }}</span
            >
            <span class="font-semibold">{{ STOP_NAMES[s.name] }}</span>
            <SeverityMark v-if="s.view?.attention" :severity="s.view.attention" class="shrink-0" />
            <span
              v-if="i < stops.length - 1"
              class="-mr-3 h-0 min-w-5 grow xl:min-w-1.5 border-t-2 border-dotted border-edge"
              aria-hidden="true"
            />
          </span>
          <span
            class="block max-w-[12rem] truncate text-sm text-soft xl:max-w-[9rem] xl:text-[0.84rem]"
            :title="s.view?.figure"
            data-strip-figure
            >{{ s.view?.figure }}</span
          >
          <span v-if="s.view?.was" class="block w-0 min-w-full truncate text-sm text-note">{{
            phrase('shared.passage_strip.was', { was: s.view.was })
          }}</span>
          <span
            class="absolute inset-x-0 bottom-0 h-[3px]"
            :class="s.name === stop ? 'bg-sea' : 'bg-transparent'"
          />
        </RouterLink>
      </nav>
      <div class="ml-auto flex shrink-0 items-center xl:ml-0">
        <span
          v-if="refused"
          class="rounded border border-blocking px-1.5 text-sm whitespace-nowrap text-blocking"
          role="status"
          :title="phrase('shared.passage_strip.refused_says')"
          data-refused
          >{{ phrase('shared.passage_strip.refused', { count: refused }) }}</span
        >
        <IconButton
          :icon="Undo2"
          :label="
            plan.rig?.undo
              ? phrase('shared.passage_strip.undo', { undo: plan.rig.undo })
              : phrase('shared.passage_strip.undo_short')
          "
          :hint="
            plan.rig?.undo || plan.unsent ? undefined : phrase('shared.passage_strip.nothing_undo')
          "
          :disabled="!plan.rig?.undo && !plan.unsent"
          @click="plan.step('undo')"
        />
        <IconButton
          :icon="Redo2"
          :label="
            plan.rig?.redo
              ? phrase('shared.passage_strip.redo', { redo: plan.rig.redo })
              : phrase('shared.passage_strip.redo_short')
          "
          :hint="plan.rig?.redo ? undefined : phrase('shared.passage_strip.nothing_redo')"
          :disabled="!plan.rig?.redo"
          @click="plan.step('redo')"
        />
        <IconButton
          v-if="!plan.rig?.what_if"
          :icon="FlaskConical"
          :label="phrase('shared.passage_strip.try_changes_without_losing')"
          :hint="phrase('shared.passage_strip.what_try_changes_without')"
          @click="plan.whatIf()"
        />
        <IconButton
          :icon="ui.night ? Sun : Moon"
          :label="
            ui.night
              ? phrase('shared.passage_strip.light_theme')
              : phrase('shared.passage_strip.night_theme')
          "
          @click="ui.toggleTheme()"
        />
        <IconButton
          :icon="Search"
          :label="phrase('shared.passage_strip.commands')"
          :hint="phrase('shared.passage_strip.commands_short')"
          @click="ui.paletteShown = true"
        />
      </div>
    </div>
  </header>
</template>
