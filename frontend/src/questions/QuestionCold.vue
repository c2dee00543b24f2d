<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import MonthPicker from '@/ui/MonthPicker.vue'
import PictureTile from '@/ui/PictureTile.vue'
import { Cog, DoorClosed, Package, Sofa } from '@lucide/vue'
import { computed } from 'vue'

/** Where the battery is, and in which months the rig is used: both say how cold it gets. */
const plan = usePlan()
const place = computed(() => plan.document.rig.place as string)
const coldest = computed(() => plan.rig!.seasons?.winter)
const PLACES = [
  {
    key: 'living_space',
    icon: Sofa,
    name: phrase('questions.cold.living_space'),
    says: phrase('questions.cold.living_space_says'),
  },
  {
    key: 'inside_locker',
    icon: DoorClosed,
    name: phrase('questions.cold.inside_locker'),
    says: phrase('questions.cold.inside_locker_says'),
  },
  {
    key: 'outside_box',
    icon: Package,
    name: phrase('questions.cold.outside_box'),
    says: phrase('questions.cold.outside_box_says'),
  },
  {
    key: 'engine_room',
    icon: Cog,
    name: phrase('questions.cold.engine_room'),
    says: phrase('questions.cold.engine_room_says'),
  },
]

function choose(key: string) {
  plan.edit(phrase('questions.cold.place'), { op: 'replace', path: '/rig/place', value: key })
}
</script>

<template>
  <div class="grid gap-3 sm:grid-cols-2" role="group" :aria-label="phrase('questions.cold.place')">
    <PictureTile
      v-for="p in PLACES"
      :key="p.key"
      :icon="p.icon"
      :name="p.name"
      :says="p.says"
      :chosen="place === p.key"
      :data-tile="p.key"
      @click="choose(p.key)"
    />
  </div>
  <MonthPicker class="mt-5" />
  <p v-if="coldest" class="mt-4 text-soft">
    {{ phrase('questions.cold.winter') }}
    <FigureLink
      :figure="coldest"
      :name="phrase('questions.cold.winter_name')"
      class="font-semibold text-ink"
    />
  </p>
</template>
