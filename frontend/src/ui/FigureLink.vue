<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import type { FigureView } from '@/api/client'
import { useUi } from '@/stores/ui'

defineProps<{ figure: Pick<FigureView, 'key' | 'text' | 'was'>; name?: string }>()
const ui = useUi()
</script>

<template>
  <button
    type="button"
    class="figure rounded-sm text-left underline decoration-line decoration-dotted decoration-1 underline-offset-4 hover:bg-wash hover:decoration-sea"
    :data-figure="figure.key"
    :title="
      name
        ? phrase('shared.figure_link.workings_of', { name })
        : phrase('shared.figure_link.workings')
    "
    @click="ui.openWorkings(figure.key)"
  >
    <span v-if="name" class="sr-only">{{ name }}: </span>{{ figure.text
    }}<span v-if="figure.was" class="was block text-sm font-normal whitespace-nowrap text-note">{{
      phrase('shared.figure_link.was', { was: figure.was })
    }}</span>
  </button>
</template>
