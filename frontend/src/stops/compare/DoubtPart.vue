<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'
import CostPicture from './CostPicture.vue'
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
    <CostPicture class="sheet mb-6 p-5" />
    <WhatFlips />
    <section v-if="answer?.break_evens.length" class="mt-8" data-break-evens>
      <h2 class="text-xl">{{ phrase('compare.doubt_part.where_two_cost_same') }}</h2>
      <p class="max-w-3xl text-pretty text-soft">
        {{
          phrase('compare.doubt_part.compared_cost_alone_unused', {
            winner: title(answer.tornado?.winner ?? ''),
            rival: title(answer.tornado?.rival ?? ''),
          })
        }}
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
          </p>
          <p class="text-sm">
            <span class="text-soft">{{ phrase('compare.doubt_part.now') }}{{ ' ' }} </span
            ><FigureLink :figure="f.now" :name="f.name" />
          </p>
        </li>
      </ul>
    </section>
    <div v-if="answer" class="mt-8 grid gap-6 lg:grid-cols-2">
      <section class="sheet p-5">
        <UseMap v-if="answer.map" :map="answer.map" />
        <p v-else class="text-soft">{{ phrase('compare.doubt_part.map_use_needs_two') }}</p>
        <p class="mt-4 text-sm text-pretty text-soft">
          {{
            phrase('compare.doubt_part.scenarios_simulated_always_same', {
              draws: answer.draws.toLocaleString('en').replace(',', '\u202f'),
            })
          }}
        </p>
      </section>
      <section v-if="answer.tornado" class="sheet p-5">
        <SwingPicture :tornado="answer.tornado" />
      </section>
    </div>
    <p v-else class="text-soft">
      {{ phrase('compare.doubt_part.simulating_scenarios_looking_equal') }}
    </p>
  </div>
</template>
