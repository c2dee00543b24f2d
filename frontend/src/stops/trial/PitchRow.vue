<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { usePlan } from '@/stores/plan'
import { Plus, X } from '@lucide/vue'
import { computed } from 'vue'

const plan = usePlan()
const pitches = computed(() => plan.document.trial.pitches)
const PITCHES = [
  { key: 'open', name: phrase('trial.pitch_row.open') },
  { key: 'half', name: phrase('trial.pitch_row.half_shade') },
  { key: 'trees', name: phrase('trial.pitch_row.trees') },
]

function put(value: string[]) {
  plan.edit(phrase('trial.pitch_row.places_trial'), {
    op: 'replace',
    path: '/trial/pitches',
    value,
  })
}
function set(i: number, key: string) {
  put(pitches.value.map((p, k) => (k === i ? key : p)))
}
</script>

<template>
  <fieldset>
    <legend class="eyebrow mb-1">{{ phrase('trial.pitch_row.place_night_night_then') }}</legend>
    <ol class="flex flex-wrap items-center gap-2">
      <li v-for="(p, i) in pitches" :key="i" class="flex items-center" data-pitch>
        <select
          class="field w-auto"
          :value="p"
          :aria-label="phrase('trial.pitch_row.place_night', { i: i + 1 })"
          @change="set(i, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="o in PITCHES" :key="o.key" :value="o.key">{{ o.name }}</option>
        </select>
        <button
          type="button"
          class="btn btn-quiet btn-icon"
          :aria-label="phrase('trial.pitch_row.remove_night', { i: i + 1 })"
          @click="put(pitches.filter((_, k) => k !== i))"
        >
          <X :size="15" />
        </button>
      </li>
      <li>
        <button
          type="button"
          class="btn"
          :disabled="pitches.length >= 30"
          @click="put([...pitches, 'half'])"
        >
          <Plus :size="15" aria-hidden="true" />
          {{
            pitches.length
              ? phrase('trial.pitch_row.next_night')
              : phrase('trial.pitch_row.change_place_night')
          }}
        </button>
      </li>
    </ol>
  </fieldset>
</template>
