<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePictures, type Picture } from '@/stores/pictures'
import { usePlan } from '@/stores/plan'
import { Camera, Trash2 } from '@lucide/vue'
import { computed, ref, shallowRef } from 'vue'
import DialogFrame from './DialogFrame.vue'

/** The pictures of one place of the rig, and a button to add another. */
const props = defineProps<{
  /** `entry:<id>`, `step:<key>` or `wiring`. */
  place: string
  /** Of what they are, for those who cannot see them. */
  of: string
  /** Only the pictures, and the button as a sign. */
  small?: boolean
}>()
const plan = usePlan()
const pictures = usePictures()
const rig = plan.rig!.id
void pictures.load(rig)
const here = computed(() => pictures.of(props.place))
const picker = ref<HTMLInputElement | null>(null)
const problem = ref('')
const busy = ref(false)
const shown = shallowRef<Picture | null>(null)
const url = (picture: Picture, end: string) => `/api/rigs/${rig}/pictures/${picture.id}${end}`

async function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  problem.value = ''
  busy.value = true
  for (const file of files) problem.value = (await pictures.add(props.place, file)) || problem.value
  busy.value = false
}
function remove() {
  void pictures.remove(shown.value!)
  shown.value = null
}
</script>

<template>
  <div :data-pictures="place">
    <div class="flex flex-wrap items-center gap-2">
      <button
        v-for="(p, i) in here"
        :key="p.id"
        type="button"
        class="overflow-hidden rounded border border-line"
        @click="shown = p"
      >
        <img
          :src="url(p, '/small.jpg')"
          :alt="phrase('shared.pictures.alt', { number: i + 1, of })"
          class="block size-20 object-cover"
          loading="lazy"
        />
      </button>
      <button
        type="button"
        class="btn btn-quiet"
        :class="small ? 'btn-icon' : '-ml-3'"
        :disabled="busy"
        :aria-label="phrase('shared.pictures.add_to', { of })"
        @click="picker?.click()"
      >
        <Camera :size="16" aria-hidden="true" />
        <template v-if="!small">
          {{ busy ? phrase('shared.pictures.sending') : phrase('shared.pictures.add') }}
        </template>
      </button>
      <input
        ref="picker"
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        class="sr-only"
        tabindex="-1"
        :aria-label="phrase('shared.pictures.file_of', { of })"
        @change="picked"
      />
    </div>
    <p v-if="problem" class="mt-1 text-blocking" role="alert">{{ problem }}</p>
    <DialogFrame
      v-if="shown"
      :open="true"
      crossed
      class="max-w-4xl"
      :title="of"
      @close="shown = null"
    >
      <img
        :src="url(shown, '.jpg')"
        :alt="phrase('shared.pictures.alt', { number: here.indexOf(shown) + 1, of })"
        :width="shown.width"
        :height="shown.height"
        class="mt-4 max-h-[68vh] w-full object-contain"
      />
      <div class="mt-4 flex flex-wrap items-center gap-3">
        <span class="text-soft">{{ shown.name }}</span>
        <button type="button" class="btn btn-quiet ml-auto" @click="remove">
          <Trash2 :size="16" aria-hidden="true" /> {{ phrase('shared.pictures.remove') }}
        </button>
      </div>
    </DialogFrame>
  </div>
</template>
