<script setup lang="ts">
import { phrase } from '@/phrases/day'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { computed, nextTick, ref } from 'vue'

const emit = defineEmits<{ pick: [entry: Schemas['ApplianceView']] }>()
const reference = useReference()
const query = ref('')

const plan = usePlan()
const kind = computed(() => plan.document.rig.kind as string)
const all = computed(() => reference.appliances)
// Without a search only what such a rig has; a search finds all.
const usual = computed(() =>
  all.value.filter((a) => !a.kinds.length || a.kinds.includes(kind.value)),
)
const found = computed(() => {
  const words = query.value.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.length) return usual.value
  return all.value.filter((a) => {
    const text = `${a.name} ${a.words} ${a.room} ${a.note}`.toLowerCase()
    return words.every((w) => text.includes(w))
  })
})
const rooms = computed(() => {
  const out = new Map<string, Schemas['ApplianceView'][]>()
  for (const a of found.value) out.set(a.room, [...(out.get(a.room) ?? []), a])
  return [...out]
})

const input = ref<{ el: HTMLInputElement } | null>(null)

/** The next one can be looked for at once. */
async function pick(entry: Schemas['ApplianceView'] | null) {
  if (entry) emit('pick', entry)
  query.value = ''
  await nextTick()
  input.value?.el?.focus()
}
</script>

<template>
  <Combobox :model-value="null" nullable immediate @update:model-value="pick">
    <div class="relative">
      <ComboboxInput
        ref="input"
        class="field"
        :aria-label="phrase('day.appliance_picker.add_list_appliances')"
        :placeholder="
          phrase('day.appliance_picker.search_appliances_fridge_kettle', { all: all.length })
        "
        autocomplete="off"
        :display-value="() => query"
        @change="query = $event.target.value"
      />
      <ComboboxOptions
        class="sheet absolute bottom-full z-20 mb-1 max-h-80 w-full overflow-y-auto py-1 shadow-xl focus:outline-none sm:w-[34rem]"
      >
        <p v-if="!found.length" class="px-3 py-2 text-soft">
          {{ phrase('day.appliance_picker.nothing_found_add_empty') }}
        </p>
        <template v-for="[room, entries] in rooms" :key="room">
          <p class="px-3 pt-2 pb-0.5 text-sm font-semibold text-sea" aria-hidden="true">
            {{ room }}
          </p>
          <ComboboxOption
            v-for="a in entries"
            :key="a.name + a.own"
            v-slot="{ active }"
            :value="a"
            as="template"
          >
            <li
              class="grid cursor-pointer grid-cols-[1fr_auto] gap-x-3 px-3 py-1.5 leading-snug"
              :class="active ? 'bg-wash' : ''"
            >
              <span
                >{{ a.name
                }}<span v-if="a.critical" class="text-sm text-soft">
                  {{ ' ' }}{{ phrase('day.appliance_picker.critical') }}</span
                ></span
              >
              <span class="text-right text-soft">
                {{ a.says }}
                <button
                  v-if="a.own"
                  type="button"
                  tabindex="-1"
                  class="ml-2 text-sm underline"
                  :aria-label="phrase('day.appliance_picker.remove_list', { name: a.name })"
                  @click.stop.prevent="reference.forgetOwn(a.own)"
                >
                  {{ phrase('day.appliance_picker.remove') }}
                </button>
              </span>
              <span v-if="a.note" class="col-span-2 text-sm text-soft">{{ a.note }}</span>
            </li>
          </ComboboxOption>
        </template>
      </ComboboxOptions>
    </div>
  </Combobox>
</template>
