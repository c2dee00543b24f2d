<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import { newest } from '@/stores/newest'
import { Printer } from '@lucide/vue'
import { ref, watch } from 'vue'
import { useChangeover } from './useChangeover'

/** What watches the bank, the drawing with its measuring points, and the papers. */
const { plan, view } = useChangeover()
const at = (what: string, paper: string, save = false) =>
  `/api/rigs/${plan.rig!.id}/changeover/print?what=${what}&paper=${paper}${save ? '&save=true' : ''}`
const drawing = ref('')
watch(
  () => plan.rig!.revision,
  async () => {
    const at = `/api/rigs/${plan.rig!.id}/changeover/drawing.svg`
    const told = await newest((signal) =>
      fetch(at, { signal }).then((answer) => (answer.ok ? answer.text() : '')),
    )
    if (told !== null) drawing.value = told
  },
  { immediate: true },
)
const PAPERS = [
  {
    what: 'booklet',
    name: phrase('changeover.papers.booklet'),
    says: phrase('changeover.papers.booklet_says'),
  },
  {
    what: 'work_order',
    name: phrase('changeover.papers.work_order'),
    says: phrase('changeover.papers.work_order_says'),
  },
]
</script>

<template>
  <div class="grid gap-4 md:grid-cols-2">
    <section v-for="p in PAPERS" :key="p.what" class="sheet px-5 py-4" :data-paper="p.what">
      <h2 class="text-xl">{{ p.name }}</h2>
      <p class="mt-1 text-soft">{{ p.says }}</p>
      <p class="mt-1">
        {{ p.what === 'booklet' ? view.own_hands : view.workshop }}
        <span v-if="view.contingency" class="text-soft"
          >· {{ phrase('changeover.papers.contingency', { price: view.contingency.text }) }}</span
        >
      </p>
      <div class="mt-3 flex flex-wrap gap-2">
        <a class="btn btn-main" :href="at(p.what, 'a4')" target="_blank" rel="noopener">
          <Printer :size="16" aria-hidden="true" /> {{ phrase('changeover.papers.print') }}
        </a>
        <a class="btn" :href="at(p.what, 'letter')" target="_blank" rel="noopener">{{
          phrase('changeover.papers.letter')
        }}</a>
        <a class="btn" :href="at(p.what, 'a4', true)" download>{{
          phrase('changeover.papers.file')
        }}</a>
      </div>
    </section>
  </div>
  <h2 class="mt-6 text-xl">{{ phrase('changeover.papers.watching') }}</h2>
  <ul class="mt-1 divide-y divide-line border-t border-line" data-watching>
    <li v-for="[name, where, when] in view.watching" :key="name" class="py-2 leading-snug">
      <b>{{ name }}</b> · {{ when }}
      <span class="block text-soft">{{ where }}</span>
    </li>
  </ul>
  <h2 class="mt-6 text-xl">{{ phrase('changeover.papers.drawing') }}</h2>
  <!-- The drawing is made by our own server, every word in it escaped. -->
  <!-- eslint-disable vue/no-v-html -->
  <div
    v-if="drawing"
    class="wiring sheet mt-2 overflow-x-auto p-4"
    tabindex="0"
    role="region"
    :aria-label="phrase('changeover.papers.drawing')"
    v-html="drawing"
  />
  <!-- eslint-enable vue/no-v-html -->
  <p v-else class="text-soft">{{ phrase('changeover.papers.no_drawing') }}</p>
</template>
