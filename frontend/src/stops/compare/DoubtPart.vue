<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'
import SwingPicture from './SwingPicture.vue'
import UseMap from './UseMap.vue'
import WhatFlips from './WhatFlips.vue'
import { useDoubt } from './useDoubt'

const plan = usePlan()
const { answer, asking } = useDoubt()
const columns = computed(() => plan.rig!.compare.compared_banks)
const title = (id: string) => columns.value.find((c) => c.id === id)?.title ?? ''
</script>

<template>
  <div :aria-busy="asking">
    <WhatFlips />
    <section v-if="answer?.break_evens.length" class="mt-8" data-break-evens>
      <h2 class="text-xl">Where the two cost the same</h2>
      <p class="max-w-3xl text-pretty text-soft">
        {{ title(answer.tornado?.winner ?? '') }} against {{ title(answer.tornado?.rival ?? '') }},
        on money alone. The unused life of the last bank is credited in full here, so that cost has
        no steps; with its steps stands below.
      </p>
      <ul class="mt-2 divide-y divide-line border-y border-line">
        <li
          v-for="f in answer?.break_evens"
          :key="f.key"
          class="grid gap-x-5 gap-y-0.5 py-2.5 md:grid-cols-[1fr_12rem]"
          :data-flip="f.key"
        >
          <p class="leading-snug">
            <SentenceText :tokens="f.says" />
            <span v-if="f.ranges" class="block text-sm text-soft"
              >With its steps: {{ f.ranges }}.</span
            >
          </p>
          <p class="text-sm">
            <span class="text-soft">Now </span><FigureLink :figure="f.now" :name="f.name" />
          </p>
        </li>
      </ul>
    </section>
    <div v-if="answer" class="mt-8 grid gap-6 lg:grid-cols-2">
      <section class="sheet p-5">
        <UseMap v-if="answer.map" :map="answer.map" />
        <p v-else class="text-soft">A map of use takes two banks that cover the need.</p>
        <p class="mt-4 text-sm text-pretty text-soft">
          {{ answer.draws.toLocaleString('en').replace(',', '\u202f') }} futures are drawn, always
          the same ones: price, cycles, calendar life, what comes besides and failures for each
          bank, and for all of them use, accidents, price change, tariff, warmth, the health at
          which lead-acid is replaced, and what the last bank fetches.
        </p>
      </section>
      <section v-if="answer.tornado" class="sheet p-5">
        <SwingPicture :tornado="answer.tornado" />
      </section>
    </div>
    <p v-else class="text-soft">Drawing futures and looking where costs meet …</p>
  </div>
</template>
