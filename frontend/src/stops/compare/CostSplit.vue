<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import type { ComparedBankView } from '@/api/client'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

/** The cost of a cycle as a bar, split by item; credits hang to the left of nought. */
const props = defineProps<{ columns: ComparedBankView[] }>()
const SHADES: Record<string, string> = {
  purchase: 'split-a',
  replacements: 'split-b',
  extras: 'split-c',
  labour: 'split-d',
  running: 'split-e',
  exit: 'split-f',
  old_bank: 'split-g',
  doubt: 'split-h',
}
const fit = computed(() => {
  const left = props.columns.filter((c) => !c.out)
  return left.length ? left : props.columns
})
const counted = computed(() => fit.value.every((c) => c.items.every((i) => i.per !== null)))
const size = (item: ComparedBankView['items'][number]) => (counted.value ? item.per! : item.value)
const text = (item: ComparedBankView['items'][number]) =>
  counted.value ? item.per_text : item.amount
const sum = (c: ComparedBankView, sign: number) =>
  c.items.reduce((all, i) => all + Math.max(0, sign * size(i)), 0)
const right = computed(() => Math.max(1e-9, ...fit.value.map((c) => sum(c, 1))))
const left = computed(() => Math.max(0, ...fit.value.map((c) => sum(c, -1))))
const span = computed(() => right.value + left.value)
const zero = computed(() => (left.value / span.value) * 100)

function blocks(c: ComparedBankView) {
  let up = 0
  let down = 0
  return c.items
    .filter((i) => Math.abs(size(i)) > 1e-9)
    .map((i) => {
      const length = (Math.abs(size(i)) / span.value) * 100
      const start = size(i) > 0 ? zero.value + up : zero.value - down - length
      if (size(i) > 0) up += length
      else down += length
      return { ...i, start, length, shown: text(i) }
    })
}
const rows = computed(() => fit.value.map((c) => ({ ...c, blocks: blocks(c) })))
const names = computed(() =>
  (props.columns[0]?.items ?? []).filter((item) =>
    fit.value.some((c) => c.items.some((i) => i.key === item.key && Math.abs(size(i)) > 1e-9)),
  ),
)
</script>

<template>
  <figure data-split>
    <figcaption>
      <h2 class="text-xl">
        {{
          counted
            ? phrase('compare.cost_split.cost_per_cycle_use')
            : phrase('compare.cost_split.lifetime_cost_item')
        }}
      </h2>
      <p class="text-soft">
        {{
          phrase('compare.cost_split.right_line_pay_left', {
            counted: counted ? phrase('compare.cost_split.cycle_use_energy_need') : '',
          })
        }}
      </p>
    </figcaption>
    <ul class="mt-3 flex flex-wrap gap-x-4 gap-y-1 text-sm">
      <li v-for="n in names" :key="n.key" class="flex items-center gap-1.5">
        <span class="inline-block size-3.5 rounded-sm" :class="SHADES[n.key]" />{{ n.name }}
      </li>
    </ul>
    <ul class="mt-3 space-y-3">
      <li
        v-for="c in rows"
        :key="c.id"
        class="grid items-center gap-x-3 gap-y-1 md:grid-cols-[15rem_1fr_7rem]"
      >
        <span class="flex items-center gap-2 leading-tight">
          <ChemistryMark :battery-class="c.battery_class" class="scale-90" />{{ c.title }}
        </span>
        <span class="relative h-7 overflow-hidden rounded bg-well" role="img" :aria-label="c.title">
          <span
            v-for="b in c.blocks"
            :key="b.key"
            class="absolute inset-y-0 border-r border-sheet"
            :class="SHADES[b.key]"
            :style="{ left: `${b.start}%`, width: `${b.length}%` }"
            :title="`${b.name}: ${b.shown}`"
          />
          <span class="absolute inset-y-0 w-0.5 bg-ink" :style="{ left: `${zero}%` }" />
        </span>
        <FigureLink
          :figure="counted ? c.money.per_cycle! : c.money.lifetime!"
          :name="phrase('compare.cost_split.total')"
          class="font-semibold whitespace-nowrap"
        />
      </li>
    </ul>
    <details class="mt-2 text-sm">
      <summary class="discloses">
        {{ phrase('compare.cost_split.show_table') }}
      </summary>
      <div
        class="relative mt-2 overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('compare.cost_split.show_table')"
      >
        <table class="w-full">
          <thead>
            <tr class="text-left text-soft">
              <th class="pr-4 pb-1">{{ phrase('compare.cost_split.item') }}</th>
              <th v-for="c in columns" :key="c.id" class="pr-4 pb-1 font-semibold">
                {{ c.title }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(item, i) in columns[0]?.items ?? []"
              :key="item.key"
              class="border-t border-line"
            >
              <th scope="row" class="py-0.5 pr-4 text-left font-normal">{{ item.name }}</th>
              <td v-for="c in columns" :key="c.id" class="pr-4 whitespace-nowrap">
                {{ c.items[i]!.amount }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </figure>
</template>

<style scoped>
.split-a {
  background: var(--sea);
}
.split-b {
  background: repeating-linear-gradient(
    -45deg,
    var(--sea) 0 5px,
    color-mix(in oklab, var(--sea) 55%, var(--sheet)) 5px 10px
  );
}
.split-c {
  background: var(--caution);
}
.split-d {
  background: repeating-linear-gradient(
    45deg,
    var(--caution) 0 4px,
    color-mix(in oklab, var(--caution) 45%, var(--sheet)) 4px 8px
  );
}
.split-e {
  background: var(--note);
}
.split-f {
  background: color-mix(in oklab, var(--soft) 55%, var(--sheet));
}
.split-g {
  background: repeating-linear-gradient(
    90deg,
    var(--soft) 0 3px,
    color-mix(in oklab, var(--soft) 40%, var(--sheet)) 3px 6px
  );
}
.split-h {
  background:
    radial-gradient(circle at 2px 2px, var(--note) 1.2px, transparent 1.6px) 0 0 / 5px 5px,
    color-mix(in oklab, var(--note) 25%, var(--sheet));
}
</style>
