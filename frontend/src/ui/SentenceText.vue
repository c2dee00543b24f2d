<script setup lang="ts">
import type { TokenView } from '@/api/client'
import FigureLink from './FigureLink.vue'

defineProps<{ tokens: TokenView[]; plain?: boolean }>()
</script>

<template>
  <span>
    <template v-for="(t, i) in tokens" :key="i">
      <FigureLink
        v-if="t.key && !plain"
        :figure="{ key: t.key, text: t.text }"
        class="font-semibold"
      />
      <template v-else>{{ t.text }}</template>
    </template>
  </span>
</template>
