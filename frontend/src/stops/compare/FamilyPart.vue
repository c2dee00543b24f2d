<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'

/** The best package of each family side by side, and why a family has none. */
const props = defineProps<{ found: Schemas['PackagesView'] }>()
const columns = computed(() =>
  props.found.families.map((f) => ({
    ...f,
    of: props.found.packages.find((p) => p.key === f.package),
  })),
)
const ROWS = [
  { key: 'usable', name: phrase('compare.family_part.usable') },
  { key: 'kg', name: phrase('compare.family_part.kg') },
  { key: 'cycles', name: phrase('compare.family_part.cycles') },
  { key: 'per_cycle', name: phrase('compare.family_part.per_cycle') },
  { key: 'outlay', name: phrase('compare.family_part.outlay') },
  { key: 'lifetime', name: phrase('compare.family_part.lifetime') },
]
</script>

<template>
  <section v-if="columns.length" class="mt-6" data-families>
    <h2 class="text-xl">{{ phrase('compare.family_part.title') }}</h2>
    <div class="sheet mt-3 overflow-x-auto">
      <table class="w-full table-fixed text-left">
        <thead>
          <tr class="border-b border-line">
            <td class="w-32 p-3 sm:w-44" />
            <th v-for="c in columns" :key="c.name" scope="col" class="p-3 text-lg">{{ c.name }}</th>
          </tr>
        </thead>
        <tbody class="align-top">
          <tr class="border-b border-line">
            <th scope="row" class="p-3 text-sm font-normal text-soft">
              {{ phrase('compare.family_part.bank') }}
            </th>
            <td v-for="c in columns" :key="c.name" class="p-3">
              <span v-if="c.of" class="flex gap-2">
                <ChemistryMark :battery-class="c.of.battery_class" class="shrink-0 scale-90" />
                <span>{{ c.of.bank }}</span>
              </span>
              <SentenceText v-else :tokens="c.why" plain />
            </td>
          </tr>
          <tr class="border-b border-line">
            <th scope="row" class="p-3 text-sm font-normal text-soft">
              {{ phrase('compare.family_part.does') }}
            </th>
            <td v-for="c in columns" :key="c.name" class="p-3">
              <template v-if="c.of">
                <span v-for="does in c.of.does" :key="does" class="block">{{ does }}</span>
                <span v-if="!c.of.does.length" class="text-soft">{{
                  phrase('compare.family_part.nothing')
                }}</span>
              </template>
            </td>
          </tr>
          <tr v-for="r in ROWS" :key="r.key" class="border-b border-line last:border-0">
            <th scope="row" class="p-3 text-sm font-normal text-soft">{{ r.name }}</th>
            <td v-for="c in columns" :key="c.name" class="figure p-3 font-semibold">
              {{ c.of?.figures[r.key]?.text ?? '' }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
