<script setup lang="ts">
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed, ref } from 'vue'
import CeilingPart from './CeilingPart.vue'
import DroppedList from './DroppedList.vue'
import FoundList from './FoundList.vue'
import FoundPicture from './FoundPicture.vue'
import OneOrMany from './OneOrMany.vue'
import { useAsked } from '@/stores/useAsked'

const plan = usePlan()
const all = ref(false)
const { answer, asking } = useAsked<Schemas['FindView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/find', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { money: '', kg: '', space: true } },
    }),
)
const front = computed(() => answer.value?.found.filter((f) => f.front) ?? [])
const shown = computed(() => (all.value ? (answer.value?.found ?? []) : front.value))
</script>

<template>
  <div v-if="answer" :aria-busy="asking">
    <p class="max-w-3xl text-lg text-pretty">
      {{ answer.models }} batteries in {{ answer.looked_at }} layouts were held against this rig.
      <template v-if="answer.found.length">
        <b>{{ answer.found.length }}</b> will do; <b>{{ front.length }}</b> of them
        {{ front.length === 1 ? 'is' : 'are' }} not beaten in price, weight and lifetime cost at
        once.
      </template>
      <template v-else
        ><b>None</b> will do as it stands. What speaks against them is counted below; a ceiling
        shows the best that can be had all the same.</template
      >
    </p>
    <p v-if="answer.found.length" class="max-w-3xl text-pretty text-soft">
      Price and cost hold what must be bought besides, such as a charger for another chemistry or a
      vented box; life is reckoned by hand: put one up to run its year.
    </p>
    <div
      v-if="answer.found.length"
      class="mt-5 grid gap-6 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]"
    >
      <FoundPicture :found="answer.found" :money="answer.money_unit" :kg="answer.kg_unit" />
      <section>
        <div class="flex flex-wrap items-baseline justify-between gap-2">
          <h2 class="text-xl">{{ all ? 'All that will do' : 'Not beaten by any other' }}</h2>
          <button
            v-if="answer.found.length > front.length"
            type="button"
            class="text-sea underline underline-offset-4"
            @click="all = !all"
          >
            {{ all ? 'Only those not beaten' : `All ${answer.found.length}` }}
          </button>
        </div>
        <FoundList :found="shown" />
      </section>
    </div>
    <OneOrMany v-for="p in answer.pairs" :key="p.battery_class" :pair="p" class="mt-10" />
    <div class="mt-10 grid items-start gap-8 lg:grid-cols-2">
      <DroppedList :dropped="answer.dropped" />
      <CeilingPart />
    </div>
  </div>
  <p v-else class="text-soft">Going through the catalogue…</p>
</template>
