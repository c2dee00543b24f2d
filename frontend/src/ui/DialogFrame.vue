<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { X } from '@lucide/vue'
import { useFocusBack } from './useFocusBack'

/** A dialog in the middle of the page with its heading; attributes go to its panel. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  open: boolean
  title: string
  /** With a cross at the heading, where no button below closes it. */
  crossed?: boolean
}>()
const emit = defineEmits<{ close: [] }>()
useFocusBack(() => props.open)
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel
        class="sheet flex max-h-[90vh] w-full flex-col overflow-y-auto p-6 shadow-xl"
        v-bind="$attrs"
      >
        <div class="flex items-start gap-4">
          <DialogTitle class="font-serif text-xl font-semibold">{{ title }}</DialogTitle>
          <button
            v-if="crossed"
            type="button"
            class="btn btn-quiet btn-icon -mt-1 ml-auto"
            :aria-label="phrase('shared.dialog_frame.close')"
            @click="emit('close')"
          >
            <X :size="18" />
          </button>
        </div>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
