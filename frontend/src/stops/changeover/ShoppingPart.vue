<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import type { Schemas } from '@/api/client'
import FigureLink from '@/ui/FigureLink.vue'
import DateField from '@/ui/DateField.vue'
import PlanField from '@/ui/PlanField.vue'
import { Download } from '@lucide/vue'
import { computed } from 'vue'
import { useChangeover } from './useChangeover'

/** Everything that is bought, borrowed or there; a price put down here is that of the comparison. */
const { plan, view } = useChangeover()
const TAGS: [string, string][] = [
  ['needed', phrase('changeover.shopping_part.needed')],
  ['wanted', phrase('changeover.shopping_part.wanted')],
  ['optional', phrase('changeover.shopping_part.optional')],
  ['there', phrase('changeover.shopping_part.there')],
  ['tool', phrase('changeover.shopping_part.tool')],
]
const groups = computed(() =>
  TAGS.map(([tag, name]) => ({
    tag,
    name,
    lines: view.value.lines.filter((line) => line.tag === tag),
  })).filter((group) => group.lines.length),
)
const at = (line: Schemas['LineView'], kind: string) =>
  line.paid_path.replace('/paid/', `/${kind}/`)

function have(line: Schemas['LineView']) {
  const path = at(line, 'have')
  plan.edit(line.name, line.have ? { op: 'remove', path } : { op: 'add', path, value: true })
}
</script>

<template>
  <div class="flex flex-wrap items-center justify-between gap-3">
    <p class="max-w-3xl text-pretty text-soft">{{ phrase('changeover.shopping_part.intro') }}</p>
    <a
      class="btn"
      :href="`/api/rigs/${plan.rig!.id}/changeover/shopping.csv`"
      download
      data-shopping-csv
    >
      <Download :size="16" aria-hidden="true" /> {{ phrase('changeover.shopping_part.csv') }}
    </a>
  </div>
  <section v-for="g in groups" :key="g.tag" class="mt-4" :data-tag="g.tag">
    <div class="grid items-end gap-x-4 lg:grid-cols-[1fr_7.5rem_7.5rem_7.5rem]">
      <h2 class="text-xl">{{ g.name }}</h2>
      <template v-if="g.tag !== 'tool'">
        <span class="eyebrow text-right max-lg:hidden" aria-hidden="true">{{
          phrase('changeover.shopping_part.estimate')
        }}</span>
        <span class="eyebrow max-lg:hidden" aria-hidden="true">{{
          phrase('changeover.shopping_part.quote')
        }}</span>
        <span class="eyebrow max-lg:hidden" aria-hidden="true">{{
          phrase('changeover.shopping_part.paid')
        }}</span>
      </template>
    </div>
    <ul class="mt-1 divide-y divide-line border-t border-line">
      <li
        v-for="line in g.lines"
        :key="line.key"
        class="grid grid-cols-2 items-start gap-x-4 gap-y-1 py-1.5 lg:grid-cols-[auto_1fr_7.5rem_7.5rem_7.5rem]"
        :data-line="line.key"
      >
        <input
          type="checkbox"
          class="mt-1 size-4.5 accent-sea max-lg:hidden"
          :checked="line.got"
          :disabled="line.got && !line.have"
          :aria-label="phrase('changeover.shopping_part.have', { name: line.name })"
          @change="have(line)"
        />
        <div class="min-w-0 leading-snug max-lg:col-span-2">
          <p>
            <template v-if="line.count && line.count > 1">{{ line.count }} × </template
            ><b class="font-semibold">{{ line.name }}</b>
            <span v-if="line.size" class="text-soft"> · {{ line.size }}</span>
          </p>
          <p class="text-sm text-soft">{{ line.reason }}</p>
          <p v-for="c in line.contents" :key="c" class="text-sm">{{ c }}</p>
          <details v-if="g.tag !== 'tool'">
            <summary class="discloses text-sm">
              {{ phrase('changeover.shopping_part.details') }}
            </summary>
            <div class="mt-1 grid gap-2 sm:grid-cols-3">
              <DateField
                :path="at(line, 'bought_on')"
                :label="phrase('changeover.shopping_part.on')"
                :called="phrase('changeover.shopping_part.on_of', { name: line.name })"
              />
              <PlanField
                :path="at(line, 'seller')"
                :label="phrase('changeover.shopping_part.seller')"
                :called="phrase('changeover.shopping_part.seller_of', { name: line.name })"
                text
              />
              <PlanField
                :path="at(line, 'serial')"
                :label="phrase('changeover.shopping_part.serial')"
                :called="phrase('changeover.shopping_part.serial_of', { name: line.name })"
                text
              />
            </div>
          </details>
        </div>
        <p class="max-lg:col-span-2 lg:pt-1 lg:text-right">
          <template v-if="line.estimate">
            <FigureLink
              :figure="line.estimate"
              :name="phrase('changeover.shopping_part.estimate_of', { name: line.name })"
            />
          </template>
        </p>
        <PlanField
          v-if="g.tag !== 'tool'"
          :path="line.price_path"
          bare
          :label="phrase('changeover.shopping_part.quote_of', { name: line.name })"
          :placeholder="
            line.key === 'batteries'
              ? phrase('changeover.shopping_part.quote_each')
              : phrase('changeover.shopping_part.quoted')
          "
          :called="phrase('changeover.shopping_part.quote_of', { name: line.name })"
          :unit="plan.rig!.units.money"
        />
        <PlanField
          v-if="g.tag !== 'tool'"
          :path="line.paid_path"
          bare
          :label="phrase('changeover.shopping_part.paid_of', { name: line.name })"
          :placeholder="phrase('changeover.shopping_part.paid_short')"
          :called="phrase('changeover.shopping_part.paid_of', { name: line.name })"
          :unit="plan.rig!.units.money"
        />
      </li>
    </ul>
  </section>
</template>
