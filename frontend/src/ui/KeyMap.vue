<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { STOP_NAMES, STOPS } from '@/router'
import { useUi } from '@/stores/ui'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const ui = useUi()
const KEYS: [string, string][] = [
  [`1 … ${STOPS.length}`, `go to ${STOPS.map((stop) => STOP_NAMES[stop]).join(', ')}`],
  ['0', phrase('shared.key_map.go_harbor_list_rigs')],
  ['/', phrase('shared.key_map.find_command_page_load')],
  ['n', phrase('shared.key_map.add_load_day_bank')],
  ['t', phrase('shared.key_map.try_changes_without_losing')],
  ['w', phrase('shared.key_map.open_workings_selected_figure')],
  ['Ctrl + Z', phrase('shared.key_map.undo_last_change')],
  ['Ctrl + Shift + Z', phrase('shared.key_map.redo')],
  ['Esc', phrase('shared.key_map.close_panel_discard_refused')],
  ['?', phrase('shared.key_map.show_list')],
]
</script>

<template>
  <Dialog :open="ui.keysShown" class="relative z-40" @close="ui.keysShown = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="sheet w-full max-w-md p-6 shadow-xl">
        <DialogTitle class="font-serif text-xl font-semibold">{{
          phrase('shared.key_map.keyboard_shortcuts')
        }}</DialogTitle>
        <dl class="mt-4 grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
          <template v-for="[key, does] in KEYS" :key="key">
            <dt class="font-semibold whitespace-nowrap">{{ key }}</dt>
            <dd class="text-soft">{{ does }}</dd>
          </template>
        </dl>
        <button type="button" class="btn mt-6 w-full" @click="ui.keysShown = false">
          {{ phrase('shared.key_map.close') }}
        </button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
