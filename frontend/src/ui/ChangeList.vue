<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { api, type Schemas } from '@/api/client'
import { newest } from '@/stores/newest'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import DialogFrame from './DialogFrame.vue'
import { ref, watch } from 'vue'
import { when } from './when'

const ui = useUi()
const plan = usePlan()
const changes = ref<Schemas['JournalEntryView'][]>([])

watch(
  () => [ui.changesShown, plan.rig?.revision],
  async () => {
    if (!ui.changesShown || !plan.rig) return
    const rig_id = plan.rig.id
    const told = await newest((signal) =>
      api.GET('/api/rigs/{rig_id}/changes', { signal, params: { path: { rig_id } } }),
    )
    if (told) changes.value = told.data?.changes ?? []
  },
)
</script>

<template>
  <DialogFrame
    :open="ui.changesShown"
    :title="phrase('shared.change_list.recent_changes')"
    class="max-w-xl"
    @close="ui.changesShown = false"
  >
    <p class="text-soft">{{ phrase('shared.change_list.last_200_changes_rig') }}</p>
    <ol
      class="mt-3 grow divide-y divide-line overflow-y-auto"
      tabindex="0"
      :aria-label="phrase('shared.change_list.changes')"
    >
      <li
        v-for="c in changes"
        :key="c.id"
        class="py-1.5"
        :class="c.undone ? 'text-soft line-through' : ''"
      >
        <span class="flex justify-between gap-4">
          <span>{{ c.label }}</span>
          <span class="shrink-0 text-sm text-soft">{{ when(c.at) }}</span>
        </span>
        <span v-if="c.before || c.after" class="block text-sm text-soft"
          >{{ c.before }} → {{ c.after }}</span
        >
      </li>
      <li v-if="!changes.length" class="py-2 text-soft">
        {{ phrase('shared.change_list.changes_yet') }}
      </li>
    </ol>
    <div class="mt-4 flex gap-2">
      <button type="button" class="btn" :disabled="!plan.rig?.undo" @click="plan.step('undo')">
        {{ phrase('shared.change_list.undo_last_change') }}
      </button>
      <button type="button" class="btn ml-auto" @click="ui.changesShown = false">
        {{ phrase('shared.change_list.close') }}
      </button>
    </div>
  </DialogFrame>
</template>
