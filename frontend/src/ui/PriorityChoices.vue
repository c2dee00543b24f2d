<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { PRIORITY_NAMES, PRIORITIES } from '@/api/lists'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

const plan = usePlan()
/** What the owner cares about, the strongest first. */
const cares = computed(() => plan.document.rig.cares)

function toggle(key: (typeof PRIORITIES)[number]) {
  const value = cares.value.includes(key)
    ? cares.value.filter((c) => c !== key)
    : [...cares.value, key]
  plan.edit(phrase('shared.care_choices.care_about'), { op: 'replace', path: '/rig/cares', value })
}
</script>

<template>
  <div class="flex flex-wrap gap-2">
    <button
      v-for="key in PRIORITIES"
      :key="key"
      type="button"
      class="btn"
      :class="cares.includes(key) ? 'btn-main' : ''"
      :aria-pressed="cares.includes(key)"
      :data-care="key"
      @click="toggle(key)"
    >
      <span v-if="cares.includes(key)" class="tabular-nums">{{ cares.indexOf(key) + 1 }}.</span>
      {{ PRIORITY_NAMES[key] }}
    </button>
  </div>
</template>
