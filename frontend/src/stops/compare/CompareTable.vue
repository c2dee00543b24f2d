<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { ArrowDown, ArrowUp, Check, ChevronRight, EyeOff, Pin, PinOff } from '@lucide/vue'
import { computed } from 'vue'
import { useColumns } from './useColumns'

const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const { kept, shown, hidden, reference, toggle, sortBy } = useColumns()
const { answer: apart } = useAsked<Schemas['DifferencesView']>(
  () => reference.value,
  (signal) =>
    reference.value
      ? api.GET('/api/rigs/{rig_id}/compare/differences', {
          signal,
          params: {
            path: { rig_id: plan.rig!.id },
            query: { reference: reference.value },
          },
        })
      : Promise.resolve({ data: { rows: {} } }),
)
const groups = computed(() => {
  const out = new Map<string, typeof compare.value.rows>()
  for (const row of compare.value.rows) {
    const name = row.headline ? '' : row.group
    out.set(name, [...(out.get(name) ?? []), row])
  }
  return [...out]
})
const toggleGroup = (name: string) => toggle('open', name)
/** How long the bar of a cell is, against the largest of its row [%]: one that is out does not press the others
 * into the corner. */
const bar = (row: (typeof compare.value.rows)[number], at: number) => {
  const values = row.figures.map((f) => f.value ?? 0)
  const fit = values.filter((_, i) => !compare.value.compared_banks[i]!.out)
  const most = Math.max(1e-9, ...(fit.length ? fit : values))
  return `${Math.min(100, Math.max(1.5, (values[at]! / most) * 100))}%`
}
const ENDS: Record<string, string> = {
  cycles: phrase('compare.compare_table.cycles_wear_out'),
  years: phrase('compare.compare_table.age_wears_out'),
  electronics: phrase('compare.compare_table.electronics_fail_first'),
  accidents: phrase('compare.compare_table.deep_discharges_end'),
  warranty: phrase('compare.compare_table.warranty_period'),
}
const difference = (key: string, at: number) =>
  (reference.value && apart.value?.rows[key]?.[at]) || ''
</script>

<template>
  <div class="mb-1 flex flex-wrap items-center gap-x-5 gap-y-2">
    <label class="flex flex-wrap items-center gap-2 text-sm">
      <span class="eyebrow">{{ phrase('compare.compare_table.show_difference') }}</span>
      <select v-model="kept.reference" class="field w-auto max-w-64" data-reference>
        <option value="">{{ phrase('compare.compare_table.bank') }}</option>
        <option v-for="c in shown" :key="c.id" :value="c.id">{{ c.title }}</option>
      </select>
    </label>
    <p v-if="hidden.length" class="flex flex-wrap items-center gap-2 text-sm">
      <span class="text-soft">{{ phrase('compare.compare_table.hidden') }}</span>
      <button
        v-for="c in hidden"
        :key="c.id"
        type="button"
        class="btn min-h-8 px-2 text-sm"
        :data-unhide="c.id"
        @click="toggle('hidden', c.id)"
      >
        {{ c.title }}
      </button>
    </p>
    <p class="text-sm text-soft">
      {{ phrase('compare.compare_table.alone') }}
    </p>
    <p class="text-sm text-soft max-sm:hidden">
      {{ phrase('compare.compare_table.click_name_row_sort')
      }}<template v-if="kept.sort">
        <button
          type="button"
          class="ml-1 text-sea underline underline-offset-4"
          @click="kept.sort = ''"
        >
          {{ phrase('compare.compare_table.original_order') }}
        </button></template
      >
    </p>
  </div>
  <div
    class="relative max-h-[calc(100dvh-8rem)] overflow-auto print:max-h-none"
    tabindex="0"
    role="region"
    :aria-label="phrase('compare.compare_table.comparison')"
  >
    <table class="comparison w-full">
      <thead>
        <tr>
          <th class="corner">
            <span class="sr-only">{{ phrase('compare.compare_table.figure') }}</span>
          </th>
          <th
            v-for="c in shown"
            :key="c.id"
            scope="col"
            class="text-left align-bottom"
            :class="kept.pinned.includes(c.id) ? 'pinned' : ''"
            :data-column="c.id"
          >
            <span class="flex items-start gap-2">
              <ChemistryMark :battery-class="c.battery_class" />
              <span class="leading-tight">
                <span class="block font-serif leading-tight font-semibold">{{ c.title }}</span>
                <span class="block text-sm font-normal text-soft"
                  >{{ c.layout
                  }}<b v-if="c.own" class="font-semibold text-sea">
                    {{ ' ' }}{{ phrase('compare.compare_table.own') }}</b
                  ></span
                >
              </span>
            </span>
            <RouterLink
              v-if="c.out"
              :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'compare' } }"
              class="mt-0.5 flex items-center gap-1.5 text-sm font-normal text-blocking underline underline-offset-2"
            >
              <SeverityMark severity="blocking" />
              {{ phrase('compare.compare_table.unsuitable_see_verdict') }}
            </RouterLink>
            <span class="mt-0.5 -ml-1.5 flex print:hidden">
              <button
                type="button"
                class="btn btn-quiet btn-icon min-h-7 w-7"
                :aria-pressed="kept.pinned.includes(c.id)"
                :aria-label="`${kept.pinned.includes(c.id) ? phrase('compare.compare_table.unpin') : phrase('compare.compare_table.pin')} ${c.title}`"
                :title="
                  kept.pinned.includes(c.id)
                    ? phrase('compare.compare_table.unpin')
                    : phrase('compare.compare_table.pin_left')
                "
                @click="toggle('pinned', c.id)"
              >
                <component :is="kept.pinned.includes(c.id) ? PinOff : Pin" :size="15" />
              </button>
              <button
                type="button"
                class="btn btn-quiet btn-icon min-h-7 w-7"
                :aria-label="phrase('compare.compare_table.hide', { title: c.title })"
                :title="phrase('compare.compare_table.hide_short')"
                @click="toggle('hidden', c.id)"
              >
                <EyeOff :size="15" />
              </button>
            </span>
          </th>
        </tr>
      </thead>
      <tbody v-for="[group, rows] in groups" :key="group">
        <tr v-if="group" class="group">
          <th :colspan="shown.length + 1" scope="rowgroup" class="text-left">
            <button
              type="button"
              class="flex min-h-8 items-center gap-1.5"
              :aria-expanded="kept.open.includes(group)"
              :data-group="group"
              @click="toggleGroup(group)"
            >
              <ChevronRight
                :size="16"
                class="text-soft"
                :class="kept.open.includes(group) ? 'rotate-90' : ''"
                aria-hidden="true"
              />{{ group }}
            </button>
          </th>
        </tr>
        <tr
          v-for="row in !group || kept.open.includes(group) ? rows : []"
          :key="row.key"
          :class="{ headline: row.headline }"
          :data-row="row.key"
        >
          <th
            scope="row"
            class="text-left"
            :aria-sort="
              kept.sort === row.key ? (kept.down ? 'descending' : 'ascending') : undefined
            "
          >
            <button
              type="button"
              class="rounded-sm text-left hover:underline hover:underline-offset-4"
              :title="phrase('compare.compare_table.sort_banks', { name: row.name })"
              @click="sortBy(row.key, row.better)"
            >
              {{ row.name }}
              <component
                :is="kept.down ? ArrowDown : ArrowUp"
                v-if="kept.sort === row.key"
                :size="14"
                class="inline text-sea"
              />
            </button>
          </th>
          <td v-for="c in shown" :key="c.id" :class="kept.pinned.includes(c.id) ? 'pinned' : ''">
            <span
              class="inline-flex items-center gap-1.5"
              :class="row.best.includes(c.at) ? 'best' : ''"
            >
              <span v-if="row.none && row.figures[c.at]!.value === null">{{ row.none }}</span>
              <FigureLink
                v-else
                :figure="row.figures[c.at]!"
                :name="row.name"
                class="whitespace-nowrap"
              />
              <Check
                v-if="row.best.includes(c.at)"
                :size="16"
                :aria-label="phrase('compare.compare_table.best')"
                class="shrink-0 text-sea"
              />
            </span>
            <span
              v-if="row.headline"
              class="mt-0.5 block h-1 max-w-32 overflow-hidden rounded-full bg-line"
              aria-hidden="true"
            >
              <span
                class="block h-full rounded-full"
                :style="{
                  width: bar(row, c.at),
                  background: `var(--chem-${c.battery_class})`,
                  opacity: c.out ? 0.45 : 1,
                }"
              />
            </span>
            <span
              v-if="difference(row.key, c.at)"
              class="block text-sm whitespace-nowrap text-note"
              data-difference
              >{{ difference(row.key, c.at) }}</span
            >
            <span v-if="row.key === 'years'" class="block text-sm text-soft">{{
              ENDS[c.ends]
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
  padding: 0.13rem 0.9rem 0.13rem 0;
  vertical-align: top;
  min-width: 7rem;
  line-height: 1.35;
}
.comparison thead th {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--sheet);
  vertical-align: bottom;
  padding-bottom: 0.3rem;
  font-weight: 600;
  box-shadow: 0 1px 0 var(--edge);
}
.comparison tbody tr {
  border-top: 1px solid var(--line);
}
.comparison tbody th {
  font-weight: 400;
  color: var(--soft);
}
.comparison .headline th {
  color: var(--ink);
  font-weight: 600;
}
.headline td {
  font-weight: 600;
}
.comparison .group th {
  font-weight: 600;
  color: var(--ink);
}
.best {
  font-weight: 700;
}
.pinned {
  background: var(--well);
  padding-left: 0.6rem !important;
}
.comparison .corner {
  z-index: 3;
}
@media (min-width: 640px) {
  .comparison tbody tr:not(.group) th,
  .corner {
    position: sticky;
    left: 0;
    min-width: 16.5rem;
    background: var(--sheet);
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
}
</style>
