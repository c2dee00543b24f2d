<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { Minus, Plus } from '@lucide/vue'

defineProps<{ label: string; value: number; least?: number; most?: number }>()
defineEmits<{ step: [value: number] }>()
</script>

<template>
  <div class="inline-flex items-center gap-1" role="group" :aria-label="label">
    <button
      type="button"
      class="btn btn-icon"
      :aria-label="phrase('shared.step_field.less', { label })"
      :disabled="value <= (least ?? 1)"
      @click="$emit('step', value - 1)"
    >
      <Minus :size="15" />
    </button>
    <output class="w-7 text-center font-semibold">{{ value }}</output>
    <button
      type="button"
      class="btn btn-icon"
      :aria-label="phrase('shared.step_field.one_more', { label })"
      :disabled="value >= (most ?? 12)"
      @click="$emit('step', value + 1)"
    >
      <Plus :size="15" />
    </button>
  </div>
</template>
