<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import SeverityMark from '@/ui/SeverityMark.vue'
import { useChangeover } from './useChangeover'

/** One sheet for the whole bank: what each device should be set to, and what conflicts. */
const { view, tick, tickedOn, isTicked } = useChangeover()
</script>

<template>
  <ul v-if="view.conflicts.length" class="space-y-2" data-conflicts>
    <li
      v-for="c in view.conflicts"
      :key="c.key"
      class="flex gap-2 leading-snug"
      :data-conflict="c.key"
    >
      <SeverityMark severity="care" class="mt-0.5 shrink-0" />
      <span
        >{{ c.says }} <span class="text-soft">{{ c.remedy }}</span></span
      >
    </li>
  </ul>
  <p class="mt-3 max-w-3xl text-pretty text-soft">{{ phrase('changeover.settings_part.intro') }}</p>
  <div class="mt-3 grid items-start gap-4 lg:grid-cols-2">
    <section v-for="g in view.settings" :key="g.key" class="sheet px-5 py-3" :data-group="g.key">
      <h2 class="text-xl">{{ g.name }}</h2>
      <p v-if="g.note" class="leading-snug text-soft">{{ g.note }}</p>
      <table v-if="g.rows.length" class="mt-1 w-full">
        <thead class="text-left text-sm text-soft">
          <tr>
            <th class="pr-3 font-semibold">{{ phrase('changeover.settings_part.setting') }}</th>
            <th class="pr-3 font-semibold">{{ phrase('changeover.settings_part.should') }}</th>
            <th class="pr-3 font-semibold">{{ phrase('changeover.settings_part.now') }}</th>
            <th class="font-semibold">{{ phrase('changeover.settings_part.set') }}</th>
          </tr>
        </thead>
        <tbody class="divide-y divide-line border-t border-line">
          <tr v-for="r in g.rows" :key="r.key" class="align-top" :data-setting="r.key">
            <th scope="row" class="py-1 pr-3 text-left font-normal">{{ r.name }}</th>
            <td class="py-1 pr-3 font-semibold">{{ r.should }}</td>
            <td class="py-1 pr-3 whitespace-nowrap text-soft">{{ r.now }}</td>
            <td class="py-1">
              <label class="flex items-start gap-2">
                <input
                  type="checkbox"
                  class="mt-0.5 size-4.5 shrink-0 accent-sea"
                  :checked="isTicked(r.key)"
                  :aria-label="
                    phrase('changeover.settings_part.set_of', { name: r.name, device: g.name })
                  "
                  @change="tick(r.key, r.name, !isTicked(r.key))"
                />
                <span v-if="isTicked(r.key)" class="text-sm whitespace-nowrap text-soft">{{
                  tickedOn(r.key)
                }}</span>
              </label>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>
