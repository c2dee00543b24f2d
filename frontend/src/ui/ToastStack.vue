<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { useUi } from '@/stores/ui'
import { X } from '@lucide/vue'

const ui = useUi()
</script>

<template>
  <div
    class="pointer-events-none fixed inset-x-0 bottom-4 z-50 flex flex-col items-center gap-2 px-4"
    aria-live="polite"
  >
    <div
      v-for="t in ui.toasts"
      :key="t.id"
      class="pointer-events-auto flex max-w-xl items-center gap-3 rounded-lg bg-ink px-4 py-2 text-paper shadow-lg"
    >
      <span>{{ t.text }}</span>
      <button
        v-if="t.action"
        type="button"
        class="rounded px-2 py-1 font-bold underline underline-offset-4"
        @click="(t.action.run(), ui.dismiss(t.id))"
      >
        {{ t.action.label }}
      </button>
      <button
        type="button"
        class="rounded p-1"
        :aria-label="phrase('shared.toast_stack.dismiss')"
        @click="ui.dismiss(t.id)"
      >
        <X :size="16" />
      </button>
    </div>
  </div>
</template>
