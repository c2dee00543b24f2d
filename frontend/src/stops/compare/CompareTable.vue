<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check } from '@lucide/vue'
import { computed } from 'vue'

const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const groups = computed(() => {
  const out = new Map<string, typeof compare.value.rows>()
  for (const row of compare.value.rows) {
    const name = row.headline ? '' : row.group
    out.set(name, [...(out.get(name) ?? []), row])
  }
  return [...out]
})
const ENDS: Record<string, string> = {
  cycles: 'cycles end it',
  years: 'years end it',
  accidents: 'deep accidents end it',
  warranty: 'counted to the warranty',
}
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="comparison w-full">
      <thead>
        <tr>
          <th class="corner"><span class="sr-only">What</span></th>
          <th v-for="c in compare.columns" :key="c.id" scope="col" class="text-left align-bottom">
            <span class="flex items-start gap-2">
              <ChemistryMark :battery-class="c.battery_class" />
              <span class="leading-tight">
                <span class="block font-serif text-lg font-semibold">{{ c.title }}</span>
                <span class="block font-normal text-soft">{{ c.layout }}</span>
              </span>
            </span>
            <RouterLink
              v-if="c.stop"
              :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'banks' } }"
              class="mt-1 flex items-center gap-1.5 font-normal text-stop underline underline-offset-2"
            >
              <SeverityMark severity="stop" /> will not do as it stands
            </RouterLink>
          </th>
        </tr>
      </thead>
      <tbody v-for="[group, rows] in groups" :key="group">
        <tr v-if="group" class="group">
          <th :colspan="compare.columns.length + 1" scope="rowgroup" class="text-left">
            {{ group }}
          </th>
        </tr>
        <tr
          v-for="row in rows"
          :key="row.key"
          :class="{ headline: row.headline }"
          :data-row="row.key"
        >
          <th scope="row" class="text-left">{{ row.name }}</th>
          <td v-for="(f, i) in row.figures" :key="f.key">
            <span
              class="inline-flex items-center gap-1.5"
              :class="row.best.includes(i) ? 'best' : ''"
            >
              <FigureLink :figure="f" :name="row.name" class="whitespace-nowrap" />
              <Check
                v-if="row.best.includes(i)"
                :size="16"
                aria-label="best"
                class="shrink-0 text-sea"
              />
            </span>
            <span v-if="row.key === 'years'" class="block text-sm text-soft">{{
              ENDS[compare.columns[i]!.ends]
            }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.comparison {
  border-collapse: collapse;
}
.comparison th,
.comparison td {
  padding: 0.4rem 1rem 0.4rem 0;
  vertical-align: top;
  min-width: 7.5rem;
}
.comparison thead th {
  padding-bottom: 0.8rem;
  font-weight: 600;
}
.comparison tbody tr {
  border-top: 1px solid var(--line);
}
.comparison tbody th {
  font-weight: 400;
  color: var(--soft);
}
.headline th,
.headline td {
  padding-top: 0.6rem;
  padding-bottom: 0.6rem;
}
.comparison .headline th {
  color: var(--ink);
  font-weight: 600;
}
.headline td {
  font-size: 1.25rem;
}
.comparison .group th {
  padding-top: 1.2rem;
  font-weight: 600;
  color: var(--ink);
}
.comparison .group {
  border-top: 0;
}
.best {
  font-weight: 700;
}
@media (min-width: 640px) {
  .comparison tbody th,
  .corner {
    width: 15rem;
  }
}
@media (max-width: 639px) {
  .comparison tbody tr:not(.group) th,
  .corner {
    position: sticky;
    left: 0;
    z-index: 1;
    min-width: 6.4rem;
    max-width: 6.4rem;
    background: var(--sheet);
    font-size: 0.9375rem;
    line-height: 1.25;
  }
  .headline td {
    font-size: 1.0625rem;
  }
}
</style>
