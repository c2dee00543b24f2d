<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { ref, watch } from 'vue'
import { when } from './when'

const ui = useUi()
const plan = usePlan()
const changes = ref<Schemas['JournalEntryView'][]>([])

watch(
  () => [ui.changesShown, plan.rig?.revision],
  async () => {
    if (!ui.changesShown || !plan.rig) return
    const { data } = await api.GET('/api/rigs/{rig_id}/changes', {
      params: { path: { rig_id: plan.rig.id } },
    })
    changes.value = data?.changes ?? []
  },
)
</script>

<template>
  <Dialog :open="ui.changesShown" class="relative z-40" @close="ui.changesShown = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="sheet flex max-h-[80vh] w-full max-w-xl flex-col p-6 shadow-xl">
        <DialogTitle class="font-serif text-xl font-semibold">{{
          phrase('shared.change_list.recent_changes')
        }}</DialogTitle>
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
      </DialogPanel>
    </div>
  </Dialog>
</template>
