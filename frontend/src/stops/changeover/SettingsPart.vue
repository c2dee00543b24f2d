<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import SeverityMark from '@/ui/SeverityMark.vue'
import FoldedSection from '@/ui/FoldedSection.vue'
import { computed } from 'vue'
import SettingRow from './SettingRow.vue'
import { useChangeover } from './useChangeover'

/** One sheet for the whole bank: what each device should be set to, what acts first, and what conflicts. */
const { view, isTicked } = useChangeover()
const orders = computed(() => [
  { key: 'emptied', title: phrase('changeover.settings_part.emptied'), rows: view.value.emptied },
  { key: 'rising', title: phrase('changeover.settings_part.rising'), rows: view.value.rising },
])
const HEAD =
  'mt-1 hidden grid-cols-[1fr_7rem_7rem_8rem_4.5rem] gap-x-4 text-sm font-semibold text-soft sm:grid'
const groups = computed(() =>
  view.value.settings.map((g) => {
    const done = g.rows.filter((r) => isTicked(r.key)).length
    const counted = g.rows.length > 0 && g.key !== 'bms'
    return {
      ...g,
      whole: !counted || done === g.rows.length,
      says: counted ? phrase('changeover.settings_part.count', { done, total: g.rows.length }) : '',
    }
  }),
)
/** The first device that is not set yet stands open, as it was when the page was opened. */
const first = groups.value.find((g) => !g.whole)?.key
</script>

<template>
  <ul v-if="view.conflicts.length" class="space-y-2" data-conflicts>
    <li
      v-for="c in view.conflicts"
      :key="c.key"
      class="flex gap-2 leading-snug"
      :data-conflict="c.key"
    >
      <SeverityMark severity="caution" class="mt-0.5 shrink-0" />
      <span
        >{{ c.says }} <span class="text-soft">{{ c.remedy }}</span></span
      >
    </li>
  </ul>
  <div class="mt-3 grid gap-x-8 gap-y-3 lg:grid-cols-2">
    <section v-for="o in orders" :key="o.key" :data-order="o.key">
      <h2 class="eyebrow">{{ o.title }}</h2>
      <ol class="mt-1 flex flex-wrap items-baseline gap-x-2 gap-y-1">
        <li v-for="(g, i) in o.rows" :key="g.key" class="whitespace-nowrap">
          <span v-if="i" class="mr-2 text-soft" aria-hidden="true">→</span>{{ g.name }}
          <b>{{ g.at }}</b>
        </li>
      </ol>
    </section>
  </div>
  <p class="mt-4 max-w-3xl text-pretty text-soft">{{ phrase('changeover.settings_part.intro') }}</p>
  <div class="mt-2 max-w-4xl border-b border-line">
    <FoldedSection
      v-for="g in groups"
      :key="g.key"
      :name="`settings-${g.key}`"
      :title="g.name"
      :says="g.says"
      :open="g.key === first"
      :data-group="g.key"
    >
      <p v-if="g.note" class="leading-snug text-soft">{{ g.note }}</p>
      <template v-if="g.rows.length">
        <div :class="HEAD" aria-hidden="true">
          <span>{{ phrase('changeover.settings_part.setting') }}</span>
          <span>{{ phrase('changeover.settings_part.should') }}</span>
          <template v-if="g.key !== 'bms'">
            <span>{{ phrase('changeover.settings_part.now') }}</span>
            <span>{{ phrase('changeover.settings_part.can') }}</span>
            <span>{{ phrase('changeover.settings_part.set') }}</span>
          </template>
        </div>
        <ul class="divide-y divide-line border-t border-line">
          <SettingRow
            v-for="r in g.rows"
            :key="r.key"
            :row="r"
            :device="g.name"
            :fixed="g.key === 'bms'"
          />
        </ul>
      </template>
    </FoldedSection>
  </div>
</template>
