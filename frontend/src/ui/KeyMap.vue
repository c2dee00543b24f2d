<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { STOP_NAMES, STOPS } from '@/api/lists'
import { useUi } from '@/stores/ui'
import DialogFrame from './DialogFrame.vue'

const ui = useUi()
const KEYS: [string, string][] = [
  [
    `1 … ${STOPS.length}`,
    phrase('shared.key_map.go_to', { pages: STOPS.map((stop) => STOP_NAMES[stop]).join(', ') }),
  ],
  ['0', phrase('shared.key_map.go_harbor_list_rigs')],
  ['/', phrase('shared.key_map.find_command_page_load')],
  ['n', phrase('shared.key_map.add_load_day_bank')],
  ['t', phrase('shared.key_map.try_changes_without_losing')],
  ['w', phrase('shared.key_map.open_workings_selected_figure')],
  ['F1', phrase('shared.key_map.help_field')],
  ['Ctrl + Z', phrase('shared.key_map.undo_last_change')],
  ['Ctrl + Shift + Z', phrase('shared.key_map.redo')],
  ['Esc', phrase('shared.key_map.close_panel_discard_refused')],
  ['Enter', phrase('shared.key_map.enter')],
  ['← →', phrase('shared.key_map.day_block')],
  ['Shift + ← →', phrase('shared.key_map.day_block_end')],
  ['c, Del', phrase('shared.key_map.day_block_copy')],
  ['← ↑ → ↓, r', phrase('shared.key_map.locker')],
  ['?', phrase('shared.key_map.show_list')],
]
</script>

<template>
  <DialogFrame
    :open="ui.keysShown"
    :title="phrase('shared.key_map.keyboard_shortcuts')"
    class="max-w-md"
    @close="ui.keysShown = false"
  >
    <dl class="mt-4 grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
      <template v-for="[key, does] in KEYS" :key="key">
        <dt class="font-semibold whitespace-nowrap">{{ key }}</dt>
        <dd class="text-soft">{{ does }}</dd>
      </template>
    </dl>
    <label class="mt-5 flex items-start gap-2 border-t border-line pt-4">
      <input v-model="ui.singleKeys" type="checkbox" class="mt-1" data-single-keys />
      <span>
        {{ phrase('shared.key_map.off') }}
        <span class="block text-sm text-soft">{{ phrase('shared.key_map.off_says') }}</span>
      </span>
    </label>
    <button type="button" class="btn mt-4 w-full" @click="ui.keysShown = false">
      {{ phrase('shared.key_map.close') }}
    </button>
  </DialogFrame>
</template>
