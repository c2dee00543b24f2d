<script setup lang="ts">
import { STOP_NAMES, STOPS } from '@/router'
import { useUi } from '@/stores/ui'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const ui = useUi()
const KEYS: [string, string][] = [
  [`1 … ${STOPS.length}`, `go to ${STOPS.map((stop) => STOP_NAMES[stop]).join(', ')}`],
  ['0', 'go to Harbor, the list of rigs'],
  ['/', 'find a command: a stop, a load to add, an assumption'],
  ['n', 'add a load (on Day) or a bank (on Banks)'],
  ['t', 'try changes beside the plan (what if)'],
  ['w', 'open the workings of the figure in focus'],
  ['Ctrl + Z', 'undo the last edit'],
  ['Ctrl + Shift + Z', 'do it again'],
  ['Esc', 'close a panel; give up what was refused in a field'],
  ['?', 'this list'],
]
</script>

<template>
  <Dialog :open="ui.keysShown" class="relative z-40" @close="ui.keysShown = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="sheet w-full max-w-md p-6 shadow-xl">
        <DialogTitle class="font-serif text-xl font-semibold">Keys</DialogTitle>
        <dl class="mt-4 grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
          <template v-for="[key, does] in KEYS" :key="key">
            <dt class="font-semibold whitespace-nowrap">{{ key }}</dt>
            <dd class="text-soft">{{ does }}</dd>
          </template>
        </dl>
        <button type="button" class="btn mt-6 w-full" @click="ui.keysShown = false">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
