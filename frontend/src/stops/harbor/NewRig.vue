<script setup lang="ts">
import { Upload } from '@lucide/vue'
import { computed, ref } from 'vue'
import { useReference } from '@/stores/reference'
import { KINDS } from './kinds'
import type { NewRigFields } from './useHarbor'

const emit = defineEmits<{ make: [wanted: NewRigFields]; bring: [file: File] }>()
const reference = useReference()
const name = ref('')
const kind = ref('van')
const pattern = ref('')
const region = ref('')
const sources = ref<NewRigFields['sources']>([])
const CHARGE = [
  { value: 'mains', name: 'Mains' },
  { value: 'solar', name: 'Sun' },
  { value: 'engine', name: 'Engine' },
]
const why = computed(() => reference.data?.patterns.find((p) => p.key === pattern.value)?.why)
const picker = ref<HTMLInputElement | null>(null)

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) emit('bring', file)
  input.value = ''
}
</script>

<template>
  <form
    class="sheet flex flex-wrap items-end gap-3 p-4"
    @submit.prevent="emit('make', { name, kind, pattern, region, sources })"
  >
    <div class="min-w-[11rem] grow sm:max-w-[12rem]">
      <label for="new-name" class="eyebrow mb-1 block">Name of a new rig</label>
      <input id="new-name" v-model="name" class="field" maxlength="80" autocomplete="off" />
    </div>
    <div class="w-32">
      <label for="new-kind" class="eyebrow mb-1 block">Kind</label>
      <select id="new-kind" v-model="kind" class="field">
        <option v-for="k in KINDS" :key="k.value" :value="k.value">{{ k.name }}</option>
      </select>
    </div>
    <div class="min-w-[10rem] grow sm:max-w-[11rem]">
      <label for="new-pattern" class="eyebrow mb-1 block">Start from</label>
      <select id="new-pattern" v-model="pattern" class="field">
        <option value="">an empty rig</option>
        <option v-for="p in reference.data?.patterns" :key="p.key" :value="p.key" :title="p.why">
          {{ p.name }}
        </option>
      </select>
    </div>
    <div class="min-w-[11rem] grow sm:max-w-[12rem]">
      <label for="new-region" class="eyebrow mb-1 block">Where</label>
      <select id="new-region" v-model="region" class="field">
        <option value="">say it later</option>
        <option v-for="r in reference.data?.regions" :key="r.key" :value="r.key">
          {{ r.name }}
        </option>
      </select>
    </div>
    <fieldset>
      <legend class="eyebrow mb-1">What charges it?</legend>
      <div class="flex min-h-9 items-center gap-4">
        <label v-for="c in CHARGE" :key="c.value" class="flex items-center gap-1.5">
          <input v-model="sources" type="checkbox" :value="c.value" :data-charge="c.value" />
          {{ c.name }}
        </label>
      </div>
    </fieldset>
    <button type="submit" class="btn btn-main">Make rig</button>
    <button type="button" class="btn sm:ml-auto" title="Import a rig file" @click="picker?.click()">
      <Upload :size="16" aria-hidden="true" /> Import
    </button>
    <input
      ref="picker"
      type="file"
      accept=".json,application/json"
      class="sr-only"
      tabindex="-1"
      aria-label="Rig file"
      @change="picked"
    />
    <p v-if="why" class="w-full text-soft">
      {{ why }}. You get a filled rig to edit<template v-if="!sources.length"
        >, with the sources that such rigs have</template
      >.
    </p>
  </form>
</template>
