<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { Schemas } from '@/api/client'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed } from 'vue'

const props = defineProps<{ pair: Schemas['PairView'] }>()
const reference = useReference()
const both = computed(() => [props.pair.few, props.pair.many])
const ROWS: { name: string; of: (s: Schemas['ShapeView']) => string }[] = [
  { name: phrase('banks.one_or_many.batteries'), of: (s) => s.units },
  { name: phrase('banks.one_or_many.up_front_cost'), of: (s) => s.found.purchase },
  { name: phrase('banks.one_or_many.total_weight'), of: (s) => s.found.kg },
  { name: phrase('banks.one_or_many.heaviest_part'), of: (s) => s.heaviest },
  { name: phrase('banks.one_or_many.continuous_current'), of: (s) => s.current },
  { name: phrase('banks.one_or_many.left_fails'), of: (s) => s.one_gone },
  { name: phrase('banks.one_or_many.bolted_connections'), of: (s) => String(s.joints) },
]
</script>

<template>
  <section>
    <h2 class="text-xl">{{ phrase('banks.one_or_many.large_several_small') }}</h2>
    <p class="max-w-3xl text-pretty text-soft">
      {{
        phrase('banks.one_or_many.both_suitable_several_keep', {
          short: reference.classes.get(pair.battery_class)?.short,
        })
      }}
    </p>
    <div class="relative mt-2 overflow-x-auto">
      <table class="w-full max-w-3xl">
        <thead>
          <tr class="text-left align-bottom">
            <td></td>
            <th v-for="s in both" :key="s.found.model" class="py-2 pr-4 font-semibold">
              <ChemistryMark :battery-class="pair.battery_class" class="mr-1.5 align-middle" />
              {{ s.found.title }}
              <span class="block text-sm font-normal text-soft">{{ s.found.layout }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in ROWS" :key="r.name" class="border-t border-line">
            <th scope="row" class="py-1.5 pr-4 text-left font-normal text-soft">{{ r.name }}</th>
            <td v-for="s in both" :key="s.found.model" class="py-1.5 pr-4">{{ r.of(s) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
