<script setup lang="ts">
import { onMounted } from 'vue'
import { useReference } from './stores/reference'
import KeyMap from './ui/KeyMap.vue'
import TermCard from './ui/TermCard.vue'
import ToastStack from './ui/ToastStack.vue'

const reference = useReference()
onMounted(() => reference.load())
</script>

<template>
  <RouterView />
  <ToastStack />
  <TermCard />
  <KeyMap />
</template>
