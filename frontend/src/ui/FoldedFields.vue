<script setup lang="ts">
/** Fields that few owners need: folded, unless one of them is filled in. */
defineProps<{ title: string; filled?: boolean }>()
</script>

<template>
  <details :open="filled" data-folded>
    <summary class="discloses min-h-9">{{ title }}</summary>
    <div class="mt-2"><slot /></div>
  </details>
</template>
