<script setup lang="ts">
import type { TokenView } from '@/api/client'
import { computed } from 'vue'
import FigureLink from './FigureLink.vue'
import TermText from './TermText.vue'

const props = defineProps<{ tokens: TokenView[]; plain?: boolean }>()

/** A stop or comma never stands alone at the start of a line: it keeps to the figure before it. */
const parts = computed(() =>
  props.tokens.map((t, i) => {
    const before = props.tokens[i - 1]
    const after = t.key ? (/^[.,;:)]/.exec(props.tokens[i + 1]?.text ?? '')?.[0] ?? '') : ''
    const text = before?.key ? t.text.replace(/^[.,;:)]/, '') : t.text
    return { ...t, text: t.key ? t.text : text, after }
  }),
)
</script>

<template>
  <span>
    <template v-for="(t, i) in parts" :key="i">
      <span v-if="t.key && !plain" :class="t.after ? 'whitespace-nowrap' : ''"
        ><FigureLink :figure="{ key: t.key, text: t.text }" class="font-semibold" />{{
          t.after
        }}</span
      >
      <template v-else-if="plain">{{ t.text }}{{ t.after }}</template>
      <template v-else><TermText :text="t.text" />{{ t.after }}</template>
    </template>
  </span>
</template>
