<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { api, type WorkingsView } from '@/api/client'
import { newest } from '@/stores/newest'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { ArrowLeft, X } from '@lucide/vue'
import { computed, nextTick, ref, watch } from 'vue'
import FormulaText from './FormulaText.vue'
import WorkingsInputs from './WorkingsInputs.vue'
import WorkingsOrigin from './WorkingsOrigin.vue'

const ui = useUi()
const plan = usePlan()
const workings = ref<WorkingsView | null>(null)
const gone = ref(false)
const panel = ref<HTMLElement | null>(null)
const key = computed(() => ui.workings.at(-1))

async function load() {
  if (!key.value || !plan.rig) return
  const [rig_id, asked] = [plan.rig.id, key.value]
  const told = await newest((signal) =>
    api.GET('/api/rigs/{rig_id}/workings', {
      signal,
      params: { path: { rig_id }, query: { key: asked } },
    }),
  )
  if (!told) return
  workings.value = told.data ?? null
  gone.value = !told.data
}

watch([key, () => plan.rig?.revision], load, { immediate: true })
watch(key, async (now, before) => {
  if (now && !before) {
    await nextTick()
    panel.value?.focus()
  }
})

function open(next: string) {
  ui.workings = [...ui.workings, next]
}

function close() {
  const from = ui.workings[0]
  ui.workings = []
  document.querySelector<HTMLElement>(`[data-figure="${CSS.escape(from ?? '')}"]`)?.focus()
}
</script>

<template>
  <aside
    v-if="key"
    ref="panel"
    tabindex="-1"
    :aria-label="phrase('shared.workings_panel.workings')"
    class="fixed inset-x-0 bottom-0 z-30 flex max-h-[72vh] flex-col overflow-y-auto rounded-t-xl border border-line bg-sheet shadow-[0_-8px_30px_rgb(0_0_0/0.18)] sm:inset-x-auto sm:top-0 sm:right-0 lg:top-[3.95rem] lg:z-10 sm:max-h-none sm:w-[25rem] sm:rounded-none sm:border-y-0 sm:border-r-0 sm:shadow-[-8px_0_30px_rgb(0_0_0/0.12)]"
    @keydown.esc="close"
  >
    <header class="sticky top-0 flex items-center gap-2 border-b border-line bg-sheet px-4 py-2.5">
      <button
        v-if="ui.workings.length > 1"
        type="button"
        class="btn btn-quiet btn-icon"
        :aria-label="phrase('shared.workings_panel.back')"
        @click="ui.workings = ui.workings.slice(0, -1)"
      >
        <ArrowLeft :size="18" />
      </button>
      <h2 class="grow text-lg">{{ phrase('shared.workings_panel.workings') }}</h2>
      <button
        type="button"
        class="btn btn-quiet btn-icon"
        :aria-label="phrase('shared.workings_panel.close_workings')"
        @click="close"
      >
        <X :size="18" />
      </button>
    </header>
    <div v-if="workings" class="space-y-5 px-4 py-4">
      <div>
        <p class="text-soft">{{ workings.name }}</p>
        <p class="text-3xl font-semibold">{{ workings.text }}</p>
        <p v-if="workings.exact !== workings.text" class="text-sm text-soft">
          {{ phrase('shared.workings_panel.exact_value', { exact: workings.exact }) }}
        </p>
      </div>
      <section v-if="workings.formula.length" class="rounded-lg bg-well px-3 py-2">
        <FormulaText :tokens="workings.formula" @open="open" />
        <FormulaText
          v-if="workings.inputs.length"
          :tokens="workings.formula"
          numbers
          class="border-t border-line"
          @open="open"
        />
      </section>
      <WorkingsOrigin :workings="workings" />
      <WorkingsInputs v-if="workings.inputs.length" :inputs="workings.inputs" @open="open" />
    </div>
    <p v-else-if="gone" class="px-4 py-6 text-soft">
      {{ phrase('shared.workings_panel.figure_longer_part_plan') }}
    </p>
  </aside>
</template>
