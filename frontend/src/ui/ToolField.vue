<script setup lang="ts">
/** A field of a tool that computes beside the plan: nothing of it is kept in the rig. */
defineProps<{
  label: string
  unit?: string
  problem?: string
  hint?: string
  data?: string
  /** Place of its help, such as `cable/amps`. */
  help?: string
}>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <label class="min-w-0">
    <span class="eyebrow mb-1 block"
      >{{ label }}<template v-if="unit">, {{ unit }}</template></span
    >
    <input
      v-model="text"
      class="field"
      autocomplete="off"
      :placeholder="hint"
      :data-tool="data"
      :data-help="help ? `/tool/${help}` : undefined"
      :aria-invalid="problem ? 'true' : undefined"
    />
    <span v-if="problem" class="mt-1 block text-sm leading-snug text-blocking" role="alert">{{
      problem
    }}</span>
  </label>
</template>
