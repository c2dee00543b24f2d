<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { STOP_NAMES, STOPS, STOPS_INSIDE, type Stop } from '@/api/lists'
import { router } from '@/router'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import ChangeList from '@/ui/ChangeList.vue'
import CommandPalette from '@/ui/CommandPalette.vue'
import PassageStrip from '@/ui/PassageStrip.vue'
import { loadTerms } from '@/ui/terms'
import { useKeys } from '@/ui/useKeys'
import UnsentBar from '@/ui/UnsentBar.vue'
import WhatIfBar from '@/ui/WhatIfBar.vue'
import WorkingsPanel from '@/ui/WorkingsPanel.vue'
import { useRoute } from 'vue-router'
import AssumedPanel from '@/questions/AssumedPanel.vue'
import { computed, defineAsyncComponent, nextTick, onMounted, watch, type Component } from 'vue'

const props = defineProps<{ id: number; stop: Stop }>()
const route = useRoute()
const plan = usePlan()
const ui = useUi()

const LabelReader = defineAsyncComponent(() => import('@/stops/banks/catalogue/LabelReader.vue'))
const LOAD: Record<Stop, () => Promise<{ default: Component }>> = {
  rig: () => import('./rig/RigStop.vue'),
  day: () => import('./day/DayStop.vue'),
  need: () => import('./need/NeedStop.vue'),
  banks: () => import('./banks/BanksStop.vue'),
  charging: () => import('./charging/ChargingStop.vue'),
  trial: () => import('./trial/TrialStop.vue'),
  compare: () => import('./compare/CompareStop.vue'),
  changeover: () => import('./changeover/ChangeoverStop.vue'),
  log: () => import('./log/LogStop.vue'),
}
const SCREENS = Object.fromEntries(
  STOPS.map((stop) => [stop, defineAsyncComponent(LOAD[stop])]),
) as Record<Stop, Component>
// The screen changes when the parts of its stop are there.
const screen = computed(() => SCREENS[(plan.rig?.stop ?? props.stop) as Stop])
/** The verdict has what was assumed in the open. */
const verdictShown = computed(() => plan.rig?.stop === 'compare' && !route.query.part)
const next = computed(() => STOPS[STOPS.indexOf(props.stop) + 1])

watch(
  () => props.stop,
  (stop) => plan.toStop(stop),
  { immediate: true },
)
watch(
  () => props.id,
  async (id) => {
    ui.workings = []
    await plan.open(id)
  },
  { immediate: true },
)

watch(
  [() => props.stop, () => plan.document?.rig.name],
  ([stop, name]) => {
    document.title = phrase('shared.rig_page.title', {
      stop: STOP_NAMES[stop],
      rig: name ?? phrase('shared.rig_page.rig'),
    })
  },
  { immediate: true },
)
/** Another stop is another page: who reads it by ear begins at its heading. */
watch(
  () => plan.rig?.stop,
  async (now, before) => {
    if (!now || !before || now === before) return
    await LOAD[now as Stop]?.()
    // The screen itself is there a moment after its script.
    await new Promise((done) => setTimeout(done, 60))
    if (plan.rig?.stop !== now) return
    const heading = document.querySelector<HTMLElement>('main h1')
    const typing = document.activeElement?.closest('input, textarea, select')
    if (!heading || typing) return
    heading.tabIndex = -1
    heading.focus({ preventScroll: true })
  },
)

onMounted(loadTerms)

function go(stop: Stop) {
  router.push({ name: 'rig', params: { id: props.id, stop } })
}

/** A key that acts on the screen of the stop waits until that screen is there. */
function onScreen(act: (event: KeyboardEvent) => void) {
  return async (event: KeyboardEvent) => {
    await Promise.all([plan.toStop(props.stop), LOAD[props.stop]()])
    await nextTick()
    act(event)
  }
}

function showWorkings(event: KeyboardEvent) {
  const focus = (event.target as HTMLElement).closest<HTMLElement>('[data-figure]')
  const figure =
    focus ??
    document.querySelector<HTMLElement>('main [data-main] [data-figure], main [data-figure]')
  if (figure?.dataset.figure) ui.openWorkings(figure.dataset.figure)
}

useKeys({
  ...Object.fromEntries(STOPS.map((stop, i) => [String(i + 1), () => go(stop)])),
  '0': () => router.push('/'),
  '?': () => (ui.keysShown = true),
  '/': () => (ui.paletteShown = true),
  n: onScreen(() => document.querySelector<HTMLElement>('[data-new]')?.click()),
  t: () => {
    if (!plan.rig?.what_if) plan.whatIf()
  },
  w: onScreen(showWorkings),
  'ctrl+z': () => plan.step('undo'),
  'ctrl+y': () => plan.step('redo'),
  'ctrl+shift+z': () => plan.step('redo'),
  escape: () => (ui.workings = []),
})
</script>

<template>
  <div v-if="plan.missing" class="mx-auto max-w-lg px-4 py-24 text-center">
    <h1 class="text-2xl">
      {{
        plan.why ? phrase('shared.rig_page.rig_cannot_opened') : phrase('shared.rig_page.rig_exist')
      }}
    </h1>
    <p class="mt-2 text-soft">{{ plan.why || phrase('shared.rig_page.been_deleted') }}</p>
    <RouterLink to="/" class="btn btn-main mt-6">{{
      phrase('shared.rig_page.back_harbor')
    }}</RouterLink>
  </div>
  <template v-else-if="plan.rig">
    <PassageStrip :stop="stop" />
    <UnsentBar />
    <p
      v-if="plan.document.guide"
      class="flex flex-wrap items-center justify-center gap-x-3 bg-wash px-4 py-1.5 print:hidden"
      data-go-on
    >
      {{ phrase('shared.rig_page.questions_left') }}
      <RouterLink
        class="font-semibold text-sea underline underline-offset-4"
        :to="{ name: 'start', params: { id } }"
        >{{ phrase('shared.rig_page.go_on') }}</RouterLink
      >
    </p>
    <WhatIfBar />
    <main
      id="main"
      class="mx-auto max-w-[1240px] px-4 pt-5 pb-4"
      :aria-busy="plan.rig.stop !== stop"
      :data-shown="plan.rig.stop"
    >
      <component :is="screen" />
      <AssumedPanel v-if="!verdictShown" />
      <nav
        v-if="stop !== 'compare' || next"
        class="mt-4 flex flex-wrap items-center gap-3 print:hidden"
      >
        <RouterLink
          v-if="stop !== 'compare'"
          class="text-sea underline"
          :to="{ name: 'rig', params: { id, stop: 'compare' }, query: { part: 'beliefs' } }"
          >{{ phrase('shared.rig_page.true_or_not') }}</RouterLink
        >
        <RouterLink
          v-if="next"
          class="btn ml-auto"
          :to="{ name: 'rig', params: { id, stop: next } }"
          >{{ phrase('shared.rig_page.next', { ONWARD: STOPS_INSIDE[next] }) }}</RouterLink
        >
      </nav>
      <p class="mt-4 border-t border-line pt-3 text-sm text-soft">
        {{ phrase('shared.rig_page.planning_aid_design_certificate') }}
      </p>
    </main>
    <WorkingsPanel />
    <CommandPalette />
    <ChangeList />
    <LabelReader />
  </template>
</template>
