<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SentenceText from '@/ui/SentenceText.vue'

/** The best package of each family side by side; where a family has none, its best bank and why it is out. */
defineProps<{ found: Schemas['PackagesView'] }>()
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
  <section v-if="found.families.length" class="mt-6" data-families>
    <h2 class="text-xl">{{ phrase('compare.family_part.title') }}</h2>
    <div class="sheet mt-3">
      <table class="w-full table-fixed text-left">
        <thead>
          <tr class="border-b border-line">
            <td class="w-28 p-3 sm:w-[22%]" />
            <th
              v-for="c in found.families"
              :key="c.name"
              scope="col"
              class="px-2 py-3 text-lg sm:px-3"
            >
              {{ c.name }}
            </th>
          </tr>
        </thead>
        <tbody class="align-top">
          <tr class="border-b border-line">
            <th scope="row" class="px-2 py-3 text-sm font-normal text-soft sm:px-3">
              {{ phrase('compare.family_part.bank') }}
            </th>
            <td v-for="c in found.families" :key="c.name" class="px-2 py-3 sm:px-3">
              <div v-if="c.bank" class="gap-2 sm:flex">
                <ChemistryMark :battery-class="c.battery_class" class="shrink-0 scale-90" />
                <span>
                  {{ c.bank }}
                  <span v-if="!c.package" class="text-sm font-semibold text-blocking">
                    {{ phrase('compare.family_part.unsuitable') }}
                  </span>
                </span>
              </div>
              <SentenceText v-if="c.why.length" :tokens="c.why" plain class="mt-1 block text-sm" />
            </td>
          </tr>
          <tr class="border-b border-line">
            <th scope="row" class="px-2 py-3 text-sm font-normal text-soft sm:px-3">
              {{ phrase('compare.family_part.does') }}
            </th>
            <td v-for="c in found.families" :key="c.name" class="px-2 py-3 sm:px-3">
              <span v-for="does in c.does" :key="does" class="block">{{ does }}</span>
              <span v-if="!c.does.length" class="text-soft">{{
                phrase('compare.family_part.nothing')
              }}</span>
            </td>
          </tr>
          <tr v-for="r in ROWS" :key="r.key" class="border-b border-line last:border-0">
            <th scope="row" class="px-2 py-3 text-sm font-normal text-soft sm:px-3">
              {{ r.name }}
            </th>
            <td
              v-for="c in found.families"
              :key="c.name"
              class="figure px-2 py-3 sm:px-3"
              :class="c.package ? 'font-semibold' : 'text-soft'"
            >
              {{ c.figures[r.key]?.text ?? '' }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
