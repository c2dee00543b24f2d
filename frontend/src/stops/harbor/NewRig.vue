<script setup lang="ts">
import { Upload } from '@lucide/vue'
import { ref } from 'vue'
import { KINDS } from './kinds'

const emit = defineEmits<{ make: [name: string, kind: string]; bring: [file: File] }>()
const name = ref('')
const kind = ref('van')
const picker = ref<HTMLInputElement | null>(null)

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) emit('bring', file)
  input.value = ''
}
</script>

<template>
  <form class="sheet flex flex-wrap items-end gap-3 p-4" @submit.prevent="emit('make', name, kind)">
    <div class="min-w-[12rem] grow sm:max-w-xs">
      <label for="new-name" class="eyebrow mb-1 block">Name of a new rig</label>
      <input id="new-name" v-model="name" class="field" maxlength="80" autocomplete="off" />
    </div>
    <div class="w-32">
      <label for="new-kind" class="eyebrow mb-1 block">Kind</label>
      <select id="new-kind" v-model="kind" class="field">
        <option v-for="k in KINDS" :key="k.value" :value="k.value">{{ k.name }}</option>
      </select>
    </div>
    <button type="submit" class="btn btn-main">Make rig</button>
    <button type="button" class="btn sm:ml-auto" @click="picker?.click()">
      <Upload :size="16" aria-hidden="true" /> Import a rig file
    </button>
    <input
      ref="picker"
      type="file"
      accept=".json,application/json"
      class="sr-only"
      tabindex="-1"
      aria-label="Rig file"
      @change="picked"
    />
  </form>
</template>
