<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'

/** The best package of each family side by side; where a family has none, its best bank and why it is out. */
const props = defineProps<{ found: Schemas['PackagesView'] | null; asking: boolean }>()
const ROWS = computed(() => [
  { key: 'usable', name: phrase('compare.family_part.usable') },
  { key: 'kg', name: phrase('compare.family_part.kg') },
  { key: 'cycles', name: phrase('compare.family_part.cycles') },
  { key: 'per_cycle', name: phrase('compare.family_part.per_cycle') },
  { key: 'outlay', name: phrase('compare.family_part.outlay') },
  {
    key: 'lifetime',
    name: phrase('compare.family_part.lifetime', { kept: props.found?.kept ?? '' }),
  },
])
const advised = computed(() => props.found?.ladder.find((s) => s.step === 'advised')?.package ?? '')
</script>

<template>
  <p
    v-if="!found"
    class="flex min-h-80 items-center justify-center rounded-lg bg-well/40 text-sm text-soft"
  >
    {{ phrase('compare.family_part.looking') }}
  </p>
  <div v-else class="self-start" :class="asking ? 'opacity-60' : ''" data-families>
    <table class="w-full table-fixed text-left" :aria-label="phrase('compare.family_part.title')">
      <thead>
        <tr class="align-top">
          <td class="w-24 sm:w-28" />
          <th
            v-for="c in found.families"
            :key="c.name"
            scope="col"
            class="rounded-t-md px-2.5 pt-2 pb-2.5 font-normal"
            :class="c.package && c.package === advised ? 'bg-wash' : ''"
          >
            <span class="flex items-center gap-2">
              <ChemistryMark
                v-if="c.battery_class"
                :battery-class="c.battery_class"
                class="shrink-0 scale-90"
              />
              <span class="font-serif text-lg font-semibold">{{ c.name }}</span>
            </span>
            <span class="mt-1 block text-sm leading-snug">
              {{ c.bank }}
              <span v-for="does in c.does" :key="does" class="mt-0.5 block text-soft"
                >+ {{ does }}</span
              >
              <b v-if="c.bank && !c.package" class="font-semibold text-blocking">
                {{ phrase('compare.family_part.unsuitable') }}
              </b>
            </span>
          </th>
        </tr>
      </thead>
      <tbody class="align-baseline">
        <tr v-for="r in ROWS" :key="r.key" class="border-t border-line">
          <th scope="row" class="py-1.5 text-sm leading-tight font-normal text-soft">
            {{ r.name }}
          </th>
          <td
            v-for="c in found.families"
            :key="c.name"
            class="figure px-2.5 py-1.5"
            :class="[
              c.package ? 'font-semibold' : 'text-soft',
              c.package && c.package === advised ? 'bg-wash' : '',
            ]"
          >
            {{ c.figures[r.key]?.text ?? '' }}
          </td>
        </tr>
      </tbody>
    </table>
    <template v-for="c in found.families" :key="c.name">
      <p v-if="c.why.length" class="mt-2 text-sm leading-snug">
        <b class="font-semibold">{{ c.bank || c.name }}:</b> <SentenceText :tokens="c.why" plain />
      </p>
    </template>
  </div>
</template>
