<script setup lang="ts">
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'
import { ChevronRight } from '@lucide/vue'
import { computed } from 'vue'

const plan = usePlan()
const groups = computed(() => {
  const out = new Map<string, typeof all>()
  const all = plan.rig!.assumptions
  for (const a of all) out.set(a.group, [...(out.get(a.group) ?? []), a])
  return [...out].map(([name, list]) => ({
    name,
    list,
    changed: list.filter((a) => a.overridden).length,
  }))
})
</script>

<template>
  <div class="divide-y divide-line border-y border-line">
    <Disclosure v-for="g in groups" :key="g.name" v-slot="{ open }">
      <DisclosureButton class="flex w-full items-center gap-2 py-2.5 text-left hover:bg-wash">
        <ChevronRight :size="18" class="transition-transform" :class="open ? 'rotate-90' : ''" />
        <span class="font-semibold">{{ g.name }}</span>
        <span class="text-soft">{{
          phrase('need.assumption_list.assumptions', { count: g.list.length })
        }}</span>
        <span v-if="g.changed" class="font-semibold text-sea">{{
          phrase('need.assumption_list.changed', { changed: g.changed })
        }}</span>
      </DisclosureButton>
      <DisclosurePanel class="grid gap-x-8 gap-y-4 pt-1 pb-5 pl-7 md:grid-cols-2">
        <div
          v-for="a in g.list"
          :key="a.key"
          class="grid grid-cols-[1fr_9rem] gap-x-3"
          :data-assumption="a.key"
        >
          <p class="leading-snug">
            <FigureLink :figure="{ key: `assume.${a.key}`, text: a.name }" />
            <span class="block text-sm text-soft"
              >{{ a.note
              }}<template v-if="a.range">
                {{ ' '
                }}{{ phrase('need.assumption_list.others_use', { range: a.range }) }}</template
              ></span
            >
          </p>
          <AssumptionField :name="a.key" bare />
        </div>
      </DisclosurePanel>
    </Disclosure>
  </div>
</template>
