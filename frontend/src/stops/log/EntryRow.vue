<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { usePictures } from '@/stores/pictures'
import PictureStrip from '@/ui/PictureStrip.vue'
import type { Entry } from './useLog'
import { Pencil, Trash2 } from '@lucide/vue'
import { computed } from 'vue'

/** One entry of the log in a row. */
const props = defineProps<{ entry: Entry; what: string }>()
defineEmits<{ edit: []; remove: [] }>()
const pictures = usePictures()
const clock = computed(() =>
  new Date((props.entry.at + 60 * props.entry.offset_min) * 1000).toISOString().slice(11, 16),
)
</script>

<template>
  <div class="flex items-start gap-x-4 py-2">
    <span class="w-12 shrink-0 text-soft">{{ clock }}</span>
    <div class="min-w-0 grow leading-snug">
      <p class="break-words">
        <b class="mr-2">{{ entry.kind_name }}</b>
        <span v-for="(s, i) in entry.said" :key="s.field"
          ><span v-if="i" class="text-soft"> · </span>{{ s.text }}</span
        >
        <span v-if="entry.bank !== 'present'" class="ml-2 text-soft">{{ entry.bank_name }}</span>
      </p>
      <p v-if="entry.text" class="break-words text-soft">{{ entry.text }}</p>
      <PictureStrip
        v-if="pictures.of(`entry:${entry.id}`).length"
        class="mt-1.5"
        small
        :place="`entry:${entry.id}`"
        :of="what"
      />
    </div>
    <PictureStrip
      v-if="!pictures.of(`entry:${entry.id}`).length"
      small
      :place="`entry:${entry.id}`"
      :of="what"
    />
    <button
      type="button"
      class="btn btn-quiet btn-icon"
      :aria-label="phrase('log.stop.edit', { what })"
      @click="$emit('edit')"
    >
      <Pencil :size="16" />
    </button>
    <button
      type="button"
      class="btn btn-quiet btn-icon"
      :aria-label="phrase('log.stop.remove', { what })"
      @click="$emit('remove')"
    >
      <Trash2 :size="16" />
    </button>
  </div>
</template>
