<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed } from 'vue'

const props = defineProps<{ pair: Schemas['PairView'] }>()
const reference = useReference()
const both = computed(() => [props.pair.few, props.pair.many])
const ROWS: { name: string; of: (s: Schemas['ShapeView']) => string }[] = [
  { name: 'Batteries', of: (s) => s.units },
  { name: 'To buy', of: (s) => s.found.purchase },
  { name: 'Weight, all', of: (s) => s.found.kg },
  { name: 'Heaviest piece', of: (s) => s.heaviest },
  { name: 'Current for ever', of: (s) => s.current },
  { name: 'Left when one fails', of: (s) => s.one_gone },
  { name: 'Bolted joints', of: (s) => String(s.joints) },
]
</script>

<template>
  <section>
    <h2 class="text-xl">One large or several small</h2>
    <p class="max-w-3xl text-pretty text-soft">
      Both will do, as {{ reference.classes.get(pair.battery_class)?.short }}. Several carry on when
      one fails and are lighter to lift; one has fewer joints and shares its current with nobody.
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
