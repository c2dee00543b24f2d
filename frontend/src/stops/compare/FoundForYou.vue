<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { useBanks } from '@/stores/useBanks'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { Plus } from '@lucide/vue'
import { computed } from 'vue'

/** The best of each class in the catalogue, where it beats the candidates of that class. */
const plan = usePlan()
const { addFound, full } = useBanks()
const verdict = computed(() => plan.rig!.compare.verdict)
const FIGURES = [
  ['outlay', phrase('compare.found_for_you.up_front_cost')],
  ['p50', phrase('compare.found_for_you.middle_scenario')],
  ['p90', phrase('compare.found_for_you.expensive_scenario')],
  ['kg', phrase('compare.found_for_you.weight')],
  ['share', phrase('compare.found_for_you.cheapest')],
] as const
</script>

<template>
  <section data-found-for-you>
    <p v-if="plan.rig!.searching" class="mt-1 text-soft" role="status">
      {{ phrase('compare.found_for_you.looking_through_catalogue') }}
    </p>
    <p v-else-if="!verdict.found.length" class="mt-1 text-soft">
      {{ phrase('compare.found_for_you.catalogue_nothing_better_banks') }}
    </p>
    <p v-if="verdict.doubt.length" class="mt-1 max-w-3xl">
      <SentenceText :tokens="verdict.doubt" />
    </p>
    <ul
      v-if="verdict.found.length"
      class="mt-2 divide-y divide-line border-y border-line"
      :class="plan.rig!.searching ? 'opacity-60' : ''"
    >
      <li
        v-for="f in verdict.found"
        :key="f.id"
        class="grid items-center gap-x-4 gap-y-2 py-3 lg:grid-cols-[17rem_1fr_auto]"
        :data-found="f.id"
      >
        <p class="flex items-start gap-2 leading-tight font-semibold">
          <ChemistryMark :battery-class="f.battery_class" class="scale-90" />
          <span>
            {{ f.title }}
            <span class="block text-sm font-normal text-soft">
              {{ f.layout
              }}<b v-if="f.wins" class="font-semibold text-sea">
                {{ ' ' }}{{ phrase('compare.found_for_you.verdict') }}</b
              ><b v-if="f.out" class="font-semibold text-blocking">
                {{ ' ' }}{{ phrase('compare.found_for_you.unsuitable') }}</b
              >
            </span>
          </span>
        </p>
        <dl class="grid grid-cols-2 gap-x-4 gap-y-1 text-sm sm:grid-cols-5">
          <div v-for="[key, name] in FIGURES" :key="key">
            <template v-if="f.figures[key]">
              <dt class="text-soft">{{ name }}</dt>
              <dd><FigureLink :figure="f.figures[key]!" :name="name" /></dd>
            </template>
          </div>
        </dl>
        <button
          type="button"
          class="btn min-h-9 px-3 text-sm"
          :disabled="full"
          :aria-label="phrase('compare.found_for_you.add_comparison', { title: f.title })"
          @click="addFound(f)"
        >
          <Plus :size="15" aria-hidden="true" />
          {{ phrase('compare.found_for_you.add_to_comparison') }}
        </button>
      </li>
    </ul>
  </section>
</template>
