<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

/** How large the place for the bank is, and what the rig can still carry. */
const plan = usePlan()
const topic = (key: string) => plan.rig!.topics.find((t) => t.key === key)
const SIDES = [
  { path: '/rig/locker_length', name: phrase('questions.space.length') },
  { path: '/rig/locker_width', name: phrase('questions.space.width') },
  { path: '/rig/locker_height', name: phrase('questions.space.height') },
]
const measured = computed(() => {
  const { locker_length, locker_width, locker_height } = plan.document.rig
  return locker_length !== null || locker_width !== null || locker_height !== null
})
const weighed = computed(() => plan.document.rig.payload_kg !== null)
const noLimit = (key: string) => topic(key)?.status === 'stated'

function setNoLimit(key: string, event: Event) {
  plan.edit(phrase('questions.space.no_limit'), {
    op: 'replace',
    path: `/stated/${key}`,
    value: (event.target as HTMLInputElement).checked,
  })
}
</script>

<template>
  <div class="grid gap-x-8 gap-y-6 lg:grid-cols-2">
    <fieldset>
      <legend class="mb-2 text-lg font-semibold">{{ phrase('questions.space.locker') }}</legend>
      <svg viewBox="0 0 240 92" class="mb-3 w-full max-w-[15rem] text-sea" aria-hidden="true">
        <g fill="none" stroke="currentColor" stroke-width="2">
          <path d="M20 34h150v50H20z" />
          <path d="M20 34l40-24h150l-40 24M210 10v50l-40 24" />
          <path d="M36 52h50v32H36zM92 52h50v32H92z" fill="var(--wash)" />
        </g>
      </svg>
      <div class="grid grid-cols-3 gap-3">
        <PlanField v-for="s in SIDES" :key="s.path" :path="s.path" :label="s.name" />
      </div>
      <p class="mt-2 text-sm text-soft">{{ phrase('questions.space.narrowest') }}</p>
      <label v-if="!measured" class="mt-2 flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          :checked="noLimit('space')"
          data-no-limit="space"
          @change="setNoLimit('space', $event)"
        />
        {{ phrase('questions.space.space_no_limit') }}
      </label>
    </fieldset>
    <fieldset v-if="topic('weight')">
      <legend class="mb-2 text-lg font-semibold">{{ phrase('questions.space.weight') }}</legend>
      <PlanField
        path="/rig/payload_kg"
        :label="phrase('questions.space.payload')"
        :hint="phrase('questions.space.payload_hint')"
        class="max-w-[16rem]"
      />
      <label v-if="!weighed" class="mt-2 flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          :checked="noLimit('weight')"
          data-no-limit="weight"
          @change="setNoLimit('weight', $event)"
        />
        {{ phrase('questions.space.weight_no_limit') }}
      </label>
    </fieldset>
  </div>
</template>
