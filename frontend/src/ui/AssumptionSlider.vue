<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { computed, ref } from 'vue'

const props = defineProps<{ name: string; least: number; most: number; step: number }>()
const plan = usePlan()
const found = computed(() => plan.rig?.assumptions.find((a) => a.key === props.name))
const held = ref<number | null>(null)
const value = computed(() => held.value ?? found.value?.value ?? props.least)

async function slide(event: Event) {
  const next = Number((event.target as HTMLInputElement).value)
  held.value = next
  const path = `/plan/overrides/${props.name}`
  plan.forget(path)
  await plan.set(found.value?.name ?? props.name, path, [{ op: 'add', path, value: next }])
  if (held.value === next) held.value = null
}
</script>

<template>
  <input
    v-if="found"
    type="range"
    class="slider w-full"
    :min="least"
    :max="most"
    :step="step"
    :value="value"
    :aria-label="phrase('shared.assumption_slider.slider', { name: found.name })"
    :aria-valuetext="found.text"
    :data-slider="name"
    @input="slide"
  />
</template>

<style scoped>
.slider {
  accent-color: var(--sea);
  height: 1.75rem;
  cursor: pointer;
}
</style>
