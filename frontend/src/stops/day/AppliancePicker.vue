<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useReference } from '@/stores/reference'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { computed, ref } from 'vue'

const emit = defineEmits<{ pick: [entry: Schemas['ApplianceView']] }>()
const reference = useReference()
const query = ref('')

const all = computed(() => reference.data?.appliances ?? [])
const found = computed(() => {
  const words = query.value.toLowerCase().split(/\s+/).filter(Boolean)
  return all.value.filter((a) => {
    const text = `${a.name} ${a.room} ${a.note}`.toLowerCase()
    return words.every((w) => text.includes(w))
  })
})

function usual(a: Schemas['ApplianceView']): string {
  if (a.use === 'standby') return 'all day'
  return a.use === 'uses' ? `${a.uses} × ${a.minutes} min` : `${a.hours} h`
}

function pick(entry: Schemas['ApplianceView'] | null) {
  if (entry) emit('pick', entry)
  query.value = ''
}
</script>

<template>
  <Combobox :model-value="null" nullable @update:model-value="pick">
    <div class="relative">
      <ComboboxInput
        class="field"
        aria-label="Add from the appliance list"
        :placeholder="`Search ${all.length} appliances: fridge, kettle, heater …`"
        autocomplete="off"
        :display-value="() => query"
        @change="query = $event.target.value"
      />
      <ComboboxOptions
        class="sheet absolute bottom-full z-20 mb-1 max-h-80 w-full overflow-y-auto py-1 shadow-xl focus:outline-none sm:w-[34rem]"
      >
        <p v-if="!found.length" class="px-3 py-2 text-soft">
          Nothing like it in the list. Add an empty load and type its watts.
        </p>
        <ComboboxOption
          v-for="a in found"
          :key="a.name"
          v-slot="{ active }"
          :value="a"
          as="template"
        >
          <li
            class="grid cursor-pointer grid-cols-[1fr_auto] gap-x-3 px-3 py-1.5 leading-snug"
            :class="active ? 'bg-wash' : ''"
          >
            <span>{{ a.name }}</span>
            <span class="text-right text-soft"
              >{{ a.draw }} {{ a.supply.toUpperCase() }} · {{ usual(a) }}</span
            >
            <span v-if="a.note" class="col-span-2 text-sm text-soft">{{ a.note }}</span>
          </li>
        </ComboboxOption>
      </ComboboxOptions>
    </div>
  </Combobox>
</template>
