<script setup lang="ts">
import type { Schemas } from '@/api/client'

defineProps<{ tokens: Schemas['FormulaToken'][]; numbers?: boolean }>()
const emit = defineEmits<{ open: [key: string] }>()

/** E_need is written with need as a subscript. */
function parts(symbol: string): [string, string] {
  const at = symbol.indexOf('_')
  return at < 0 ? [symbol, ''] : [symbol.slice(0, at), symbol.slice(at + 1).replaceAll('_', ' ')]
}
</script>

<template>
  <p class="font-serif leading-loose break-words">
    <template v-for="(t, i) in tokens" :key="i">
      <button
        v-if="t.key"
        type="button"
        class="rounded-sm px-0.5 hover:bg-wash"
        :class="numbers ? 'whitespace-nowrap text-sea' : 'italic'"
        @click="emit('open', t.key)"
      >
        <template v-if="numbers">{{ t.text }}</template>
        <template v-else
          >{{ parts(t.symbol!)[0]
          }}<sub v-if="parts(t.symbol!)[1]" class="not-italic">{{
            parts(t.symbol!)[1]
          }}</sub></template
        >
      </button>
      <template v-else>{{ t.text }}</template>
    </template>
  </p>
</template>
