<script setup lang="ts">
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

const props = defineProps<{ batteryClass: string; most: number }>()
const plan = usePlan()
const reference = useReference()
const steps = computed(
  () => plan.rig!.need.classes.find((c) => c.battery_class === props.batteryClass)?.steps ?? [],
)
const bars = computed(() =>
  steps.value.map((s, i) => {
    const to = s.figure.value ?? 0
    const from = i ? (steps.value[i - 1]!.figure.value ?? 0) : 0
    return {
      ...s,
      left: (Math.min(from, to) / props.most) * 100,
      width: (Math.abs(to - from) / props.most) * 100,
      whole: (to / props.most) * 100,
    }
  }),
)
</script>

<template>
  <ol
    class="space-y-1"
    :aria-label="
      phrase('need.need_waterfall.day_rated_capacity', {
        batteryClass: reference.classes.get(batteryClass)?.name,
      })
    "
  >
    <li
      v-for="(b, i) in bars"
      :key="b.name"
      class="grid grid-cols-[6.5rem_1fr_5rem] items-center gap-2"
      :data-step="b.name"
    >
      <span class="text-soft">{{ b.name }}</span>
      <span class="relative h-6 rounded-sm bg-well" :title="b.added">
        <span
          class="absolute inset-y-0 left-0 rounded-sm"
          :style="{
            width: `${i ? b.left : b.whole}%`,
            background: `color-mix(in oklab, var(--chem-${batteryClass}) 22%, var(--sheet))`,
          }"
        />
        <span
          class="absolute inset-y-0 min-w-0.5 rounded-sm"
          :style="{
            left: `${b.left}%`,
            width: `${b.width}%`,
            background: `var(--chem-${batteryClass})`,
          }"
        />
      </span>
      <FigureLink :figure="b.figure" :name="b.name" class="text-right font-semibold" />
    </li>
  </ol>
</template>
