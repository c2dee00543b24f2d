<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { Calendar } from '@lucide/vue'
import { ref } from 'vue'
import IconButton from './IconButton.vue'
import PlanField from './PlanField.vue'
import { dateOf } from './when'

/** A date: typed as people write it, or picked from a calendar. */
const props = defineProps<{ path: string; label: string; called?: string }>()
const plan = usePlan()
const picker = ref<HTMLInputElement | null>(null)

function pick(event: Event) {
  const day = (event.target as HTMLInputElement).value
  if (day) plan.type(props.path, day, props.called ?? props.label)
}
</script>

<template>
  <div class="relative">
    <PlanField
      :path="path"
      :label="label"
      :called="called"
      :placeholder="dateOf('2027-04-25')"
      text
      class="date-text"
    />
    <div class="absolute top-6 right-0.5">
      <!-- Its calendar opens here; it is never written into. -->
      <input
        ref="picker"
        type="date"
        class="pointer-events-none absolute inset-0 opacity-0"
        tabindex="-1"
        aria-hidden="true"
        min="1990-01-01"
        max="2100-12-31"
        @change="pick"
      />
      <IconButton
        small
        :icon="Calendar"
        :label="phrase('shared.date_field.pick', { label: called ?? label })"
        :hint="phrase('shared.date_field.hint')"
        @click="picker?.showPicker()"
      />
    </div>
  </div>
</template>

<style scoped>
.date-text :deep(.field) {
  padding-right: 2.25rem;
}
</style>
