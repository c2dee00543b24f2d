<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import { useChangeover } from './useChangeover'

/** Stands in for a multimeter, to try the whole changeover at the kitchen table. */
const { view, fault, practising } = useChangeover()
</script>

<template>
  <details
    class="rounded-lg border border-dashed border-line px-4 py-2"
    :open="practising"
    data-meter
  >
    <summary class="discloses">{{ phrase('changeover.meter.title') }}</summary>
    <p class="mt-1 max-w-2xl text-soft">{{ phrase('changeover.meter.says') }}</p>
    <div class="mt-2 flex flex-wrap items-end gap-4">
      <label class="flex items-center gap-2">
        <input v-model="practising" type="checkbox" class="size-4.5 accent-sea" data-practise />
        {{ phrase('changeover.meter.practise') }}
      </label>
      <label v-if="practising" class="block">
        <span class="eyebrow mb-1 block">{{ phrase('changeover.meter.fault') }}</span>
        <select v-model="fault" class="field" data-fault>
          <option value="">{{ phrase('changeover.meter.none') }}</option>
          <option v-for="f in view.faults" :key="f.key" :value="f.key">{{ f.name }}</option>
        </select>
      </label>
    </div>
  </details>
</template>
