<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import PictureTile from '@/ui/PictureTile.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

/** How often the rig stands on hook-up. */
const plan = usePlan()
const now = computed(() => plan.document.rig.hook_up_nights as number)
const CHOICES = [
  {
    nights: 0,
    name: phrase('questions.hook_up.never'),
    says: phrase('questions.hook_up.never_says'),
  },
  {
    nights: 10,
    name: phrase('questions.hook_up.seldom'),
    says: phrase('questions.hook_up.seldom_says'),
  },
  {
    nights: 50,
    name: phrase('questions.hook_up.often'),
    says: phrase('questions.hook_up.often_says'),
  },
  {
    nights: 150,
    name: phrase('questions.hook_up.mostly'),
    says: phrase('questions.hook_up.mostly_says'),
  },
]

function choose(nights: number) {
  plan.edit(phrase('questions.hook_up.nights'), {
    op: 'replace',
    path: '/rig/hook_up_nights',
    value: nights,
  })
}
</script>

<template>
  <div
    class="grid gap-3 sm:grid-cols-2"
    role="group"
    :aria-label="phrase('questions.hook_up.nights')"
  >
    <PictureTile
      v-for="c in CHOICES"
      :key="c.nights"
      :name="c.name"
      :says="c.says"
      :chosen="now === c.nights"
      :data-tile="c.nights"
      @click="choose(c.nights)"
    />
  </div>
  <PlanField
    path="/rig/hook_up_nights"
    :label="phrase('questions.hook_up.nights')"
    class="mt-5 max-w-[18rem]"
  />
</template>
