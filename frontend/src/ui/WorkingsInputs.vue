<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import type { Schemas } from '@/api/client'
import { ORIGINS } from './origins'

defineProps<{ inputs: Schemas['InputView'][] }>()
const emit = defineEmits<{ open: [key: string] }>()

function symbol(text: string): [string, string] {
  const at = text.indexOf('_')
  return at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1).replaceAll('_', ' ')]
}
</script>

<template>
  <section>
    <h3 class="eyebrow mb-1 font-sans">{{ phrase('shared.workings_inputs.inputs') }}</h3>
    <ul class="divide-y divide-line">
      <li v-for="i in inputs" :key="i.symbol">
        <button
          type="button"
          class="grid w-full grid-cols-[4rem_1fr_auto] items-baseline gap-x-2 rounded py-1.5 text-left hover:bg-wash"
          @click="emit('open', i.key)"
        >
          <span class="truncate font-serif italic"
            >{{ symbol(i.symbol)[0]
            }}<sub v-if="symbol(i.symbol)[1]" class="not-italic">{{
              symbol(i.symbol)[1]
            }}</sub></span
          >
          <span class="leading-snug"
            >{{ i.name }}<span class="block text-sm text-soft">{{ ORIGINS[i.origin] }}</span></span
          >
          <span class="text-right font-semibold">{{ i.text }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>
