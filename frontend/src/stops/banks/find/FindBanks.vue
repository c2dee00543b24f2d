<script setup lang="ts">
import { phrase } from '@/phrases/banks'
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
      {{
        phrase('banks.find_banks.batteries_layouts_checked_rig', {
          models: answer.models,
          looked_at: answer.looked_at,
        })
      }}
      <template v-if="answer.found.length">
        <b>{{ answer.found.length }}</b> {{ phrase('banks.find_banks.suitable') }}
        <b>{{ front.length }}</b>
        {{
          phrase('banks.find_banks.beaten_price_weight_lifetime', {
            front: front.length === 1 ? 'is' : 'are',
          })
        }}
      </template>
      <template v-else
        ><b>{{ phrase('banks.find_banks.none') }}</b>
        {{ phrase('banks.find_banks.suitable_reasons_counted_below') }}</template
      >
    </p>
    <p v-if="answer.found.length" class="max-w-3xl text-pretty text-soft">
      {{ phrase('banks.find_banks.price_cost_include_must') }}
    </p>
    <div
      v-if="answer.found.length"
      class="mt-5 grid gap-6 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]"
    >
      <FoundPicture :found="answer.found" :money="answer.money_unit" :kg="answer.kg_unit" />
      <section>
        <div class="flex flex-wrap items-baseline justify-between gap-2">
          <h2 class="text-xl">
            {{
              all
                ? phrase('banks.find_banks.suitable_banks')
                : phrase('banks.find_banks.beaten_other')
            }}
          </h2>
          <button
            v-if="answer.found.length > front.length"
            type="button"
            class="text-sea underline underline-offset-4"
            @click="all = !all"
          >
            {{
              all
                ? phrase('banks.find_banks.those_beaten')
                : phrase('banks.find_banks.all', { found: answer.found.length })
            }}
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
  <p v-else class="text-soft">{{ phrase('banks.find_banks.searching_catalogue') }}</p>
</template>
