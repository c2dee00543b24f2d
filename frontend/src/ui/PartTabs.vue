<script setup lang="ts">
import type { Stop } from '@/api/lists'
import { usePlan } from '@/stores/plan'
import { nextTick, ref, watch } from 'vue'

/** The parts of a stop: the first is the stop itself, the others are named in the address. */
const props = defineProps<{
  stop: Stop
  parts: { key: string; name: string }[]
  chosen: string
  name: string
  /** Whether the stop opens at a part of its own choice, so that each is named in the address. */
  named?: boolean
}>()
const plan = usePlan()
const to = (key: string) => ({
  name: 'rig',
  params: { id: plan.rig!.id, stop: props.stop },
  query: key === props.parts[0]!.key && !props.named ? {} : { part: key },
})
const tabs = ref<HTMLElement | null>(null)

/** On a phone the part that is open may stand outside of the row. */
watch(
  () => props.chosen,
  async () => {
    await nextTick()
    const tab = tabs.value?.querySelector<HTMLElement>('[aria-current]')
    if (tabs.value && tab) tabs.value.scrollLeft = tab.offsetLeft - 40
  },
  { immediate: true, flush: 'post' },
)
</script>

<template>
  <nav
    ref="tabs"
    class="relative mt-3 mb-5 flex gap-1 overflow-x-auto border-b border-line"
    :aria-label="name"
  >
    <RouterLink
      v-for="p in parts"
      :key="p.key"
      :to="to(p.key)"
      class="shrink-0 rounded-t-lg border-b-[3px] px-3 py-2 hover:bg-wash"
      :class="p.key === chosen ? 'border-sea font-semibold' : 'border-transparent text-soft'"
      :aria-current="p.key === chosen ? 'page' : undefined"
      :data-part="p.key"
      >{{ p.name }}</RouterLink
    >
  </nav>
</template>
