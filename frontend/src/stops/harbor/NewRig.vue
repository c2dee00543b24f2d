<script setup lang="ts">
import { phrase } from '@/phrases/harbor'
import { Compass, Upload } from '@lucide/vue'
import { computed, ref } from 'vue'
import { useReference } from '@/stores/reference'
import { KINDS } from '@/ui/rigKinds'
import type { NewRigFields } from './useHarbor'

const props = defineProps<{ making?: boolean; open?: boolean }>()
const emit = defineEmits<{ make: [wanted: NewRigFields]; bring: [file: File] }>()
const reference = useReference()
const name = ref('')
const kind = ref('van')
const pattern = ref('')
const region = ref('')
const sources = ref<NewRigFields['sources']>([])
const CHARGE = [
  { value: 'mains', name: phrase('harbor.new_rig.mains') },
  { value: 'solar', name: phrase('harbor.new_rig.solar') },
  { value: 'engine', name: phrase('harbor.new_rig.engine') },
]
const why = computed(() => reference.data?.patterns.find((p) => p.key === pattern.value)?.why)
const picker = ref<HTMLInputElement | null>(null)

function make() {
  if (props.making) return
  emit('make', {
    name: name.value,
    kind: kind.value,
    pattern: pattern.value,
    region: region.value,
    sources: sources.value,
  })
}

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) emit('bring', file)
  input.value = ''
}
</script>

<template>
  <section class="sheet p-5">
    <div class="flex flex-wrap items-center gap-3">
      <RouterLink to="/start" class="btn btn-main min-h-12 px-5 text-lg" data-start>
        <Compass :size="20" aria-hidden="true" /> {{ phrase('harbor.new_rig.start_plan') }}
      </RouterLink>
      <p class="min-w-[14rem] grow text-soft">{{ phrase('harbor.new_rig.ten_questions') }}</p>
      <button
        type="button"
        class="btn"
        :disabled="making"
        data-without-questions
        :title="phrase('harbor.new_rig.without_questions_makes')"
        @click="make"
      >
        {{ phrase('harbor.new_rig.without_questions') }}
      </button>
      <button
        type="button"
        class="btn"
        :title="phrase('harbor.new_rig.import_rig_file')"
        @click="picker?.click()"
      >
        <Upload :size="16" aria-hidden="true" /> {{ phrase('harbor.new_rig.import') }}
      </button>
      <input
        ref="picker"
        type="file"
        accept=".json,.zip,application/json,application/zip"
        class="sr-only"
        tabindex="-1"
        :aria-label="phrase('harbor.new_rig.rig_file')"
        @change="picked"
      />
    </div>
    <details class="mt-3" :open="open" data-new-rig>
      <summary class="discloses min-h-11">{{ phrase('harbor.new_rig.fill_in_first') }}</summary>
      <form class="mt-3 flex flex-wrap items-end gap-3" @submit.prevent="make">
        <div class="min-w-[11rem] grow sm:max-w-[12rem]">
          <label for="new-name" class="eyebrow mb-1 block">{{
            phrase('harbor.new_rig.name_new_rig')
          }}</label>
          <input id="new-name" v-model="name" class="field" maxlength="80" autocomplete="off" />
        </div>
        <div class="w-32">
          <label for="new-kind" class="eyebrow mb-1 block">{{
            phrase('harbor.new_rig.kind')
          }}</label>
          <select id="new-kind" v-model="kind" class="field">
            <option v-for="k in KINDS" :key="k.value" :value="k.value">{{ k.name }}</option>
          </select>
        </div>
        <div class="min-w-[10rem] grow sm:max-w-[11rem]">
          <label for="new-pattern" class="eyebrow mb-1 block">{{
            phrase('harbor.new_rig.start')
          }}</label>
          <select id="new-pattern" v-model="pattern" class="field">
            <option value="">{{ phrase('harbor.new_rig.empty_rig') }}</option>
            <option
              v-for="p in reference.data?.patterns"
              :key="p.key"
              :value="p.key"
              :title="p.why"
            >
              {{ p.name }}
            </option>
          </select>
        </div>
        <div class="min-w-[11rem] grow sm:max-w-[12rem]">
          <label for="new-region" class="eyebrow mb-1 block">{{
            phrase('harbor.new_rig.where')
          }}</label>
          <select id="new-region" v-model="region" class="field">
            <option value="">{{ phrase('harbor.new_rig.choose_later') }}</option>
            <option v-for="r in reference.data?.regions" :key="r.key" :value="r.key">
              {{ r.name }}
            </option>
          </select>
        </div>
        <fieldset>
          <legend class="eyebrow mb-1">{{ phrase('harbor.new_rig.charges') }}</legend>
          <div class="flex min-h-9 items-center gap-4">
            <label v-for="c in CHARGE" :key="c.value" class="flex items-center gap-1.5">
              <input v-model="sources" type="checkbox" :value="c.value" :data-charge="c.value" />
              {{ c.name }}
            </label>
          </div>
        </fieldset>
        <button type="submit" class="btn" :disabled="making">
          {{ phrase('harbor.new_rig.create_rig') }}
        </button>
        <p v-if="why" class="w-full text-soft">
          {{ phrase('harbor.new_rig.get_filled_rig_edit', { why })
          }}<template v-if="!sources.length">{{
            phrase('harbor.new_rig.usual_charging_sources')
          }}</template
          >.
        </p>
      </form>
    </details>
  </section>
</template>
