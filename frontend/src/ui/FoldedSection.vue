<script setup lang="ts">
import { ref, watch } from 'vue'

/** A section that is there when it is wanted: its heading opens it, and only then is it made. */
const props = defineProps<{ title: string; name: string; open?: boolean; says?: string }>()
const opened = ref(props.open ?? false)
watch(
  () => props.open,
  (now) => {
    if (now) opened.value = true
  },
)
</script>

<template>
  <details
    class="border-t border-line"
    :open="opened"
    :data-fold="name"
    @toggle="opened = ($event.target as HTMLDetailsElement).open || opened"
  >
    <summary class="discloses flex min-h-11 w-full items-center">
      <span class="flex flex-wrap items-baseline gap-x-2">
        <h2 class="text-xl text-ink">{{ title }}</h2>
        <span v-if="says" class="text-soft">{{ says }}</span>
      </span>
    </summary>
    <div v-if="opened" class="pt-1 pb-5"><slot /></div>
  </details>
</template>
