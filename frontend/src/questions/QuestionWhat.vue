<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { useReference } from '@/stores/reference'
import PictureTile from '@/ui/PictureTile.vue'
import { KINDS } from '@/ui/rigKinds'

/** What the rig is and where it is used. */
defineProps<{ kind: string; region: string; name?: string }>()
defineEmits<{ kind: [to: string]; region: [to: string]; name: [to: string] }>()
const reference = useReference()
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div
    class="grid grid-cols-2 gap-3 sm:grid-cols-3"
    role="group"
    :aria-label="phrase('questions.what.kind')"
  >
    <PictureTile
      v-for="k in KINDS"
      :key="k.value"
      :icon="k.icon"
      :name="k.name"
      :chosen="kind === k.value"
      :data-tile="k.value"
      @click="$emit('kind', k.value)"
    />
  </div>
  <div class="mt-5 grid gap-4 sm:grid-cols-2">
    <div>
      <label for="question-region" class="eyebrow mb-1 block">{{
        phrase('questions.what.region')
      }}</label>
      <select
        id="question-region"
        class="field"
        :value="region"
        data-path="/rig/region"
        @change="$emit('region', valueOf($event))"
      >
        <option value="">{{ phrase('questions.what.unknown') }}</option>
        <option v-for="r in reference.data?.regions" :key="r.key" :value="r.key">
          {{ r.name }}
        </option>
      </select>
    </div>
    <div v-if="name !== undefined">
      <label for="question-name" class="eyebrow mb-1 block">{{
        phrase('questions.what.name')
      }}</label>
      <input
        id="question-name"
        class="field"
        :value="name"
        maxlength="80"
        autocomplete="off"
        @input="$emit('name', valueOf($event))"
      />
    </div>
  </div>
</template>
