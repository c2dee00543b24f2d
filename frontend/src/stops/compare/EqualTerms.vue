<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import { computed, nextTick, ref } from 'vue'

const plan = usePlan()
const root = ref<HTMLElement | null>(null)
const chosen = ref('usable')
const { answer } = useAsked<Schemas['EqualTermsListView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/compare/terms', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const NAMES: Record<string, string> = {
  usable: phrase('compare.equal_terms.equal_usable_energy'),
  depth: phrase('compare.equal_terms.equal_depth'),
  label: phrase('compare.equal_terms.equal_rated_energy'),
  bought: phrase('compare.equal_terms.sold'),
}
const ROWS = [
  { key: 'usable', name: phrase('compare.equal_terms.usable_energy') },
  { key: 'kg', name: phrase('compare.equal_terms.weight') },
  { key: 'purchase', name: phrase('compare.equal_terms.batteries_buy') },
  { key: 'lifetime', name: phrase('compare.equal_terms.lifetime_cost') },
  { key: 'per_cycle', name: phrase('compare.equal_terms.lifetime_cost_per_cycle') },
]
const term = computed(() => answer.value?.equal_terms.find((t) => t.key === chosen.value))
const columns = computed(() =>
  plan.rig!.compare.compared_banks.filter((c) => term.value?.figures[c.id]),
)

/** Show the banks on one set of terms, and bring them into view. */
async function show(key: string) {
  chosen.value = key
  await nextTick()
  root.value?.scrollIntoView({ behavior: 'smooth', block: 'center' })
}
defineExpose({ show })
</script>

<template>
  <div ref="root" data-terms>
    <RadioGroup
      v-model="chosen"
      class="mt-2 flex flex-wrap gap-2"
      :aria-label="phrase('compare.equal_terms.basis_comparison')"
    >
      <RadioGroupOption
        v-for="t in answer?.equal_terms ?? []"
        :key="t.key"
        v-slot="{ checked }"
        :value="t.key"
        as="template"
      >
        <button type="button" class="btn" :class="checked ? 'btn-main' : ''" :data-term="t.key">
          {{ NAMES[t.key] }}
        </button>
      </RadioGroupOption>
    </RadioGroup>
    <p v-if="term" class="mt-2 max-w-3xl text-soft" data-flatters>{{ term.says }}</p>
    <div
      v-if="term"
      class="relative mt-3 overflow-x-auto"
      tabindex="0"
      role="region"
      :aria-label="phrase('compare.equal_terms.equal_terms')"
    >
      <table class="w-full">
        <thead>
          <tr class="align-bottom">
            <td />
            <th
              v-for="c in columns"
              :key="c.id"
              scope="col"
              class="min-w-28 py-1 pr-4 text-left text-sm leading-tight font-semibold"
              :class="c.out ? 'text-soft' : ''"
            >
              <ChemistryMark :battery-class="c.battery_class" class="mb-1" /><br />{{ c.title
              }}{{ c.out ? ' (out)' : '' }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in ROWS" :key="r.key" class="border-t border-line">
            <th scope="row" class="py-1.5 pr-4 text-left font-normal">{{ r.name }}</th>
            <td v-for="c in columns" :key="c.id" class="pr-4 whitespace-nowrap">
              <FigureLink
                :figure="term.figures[c.id]![r.key]!"
                :name="r.name"
                :class="r.key === 'per_cycle' ? 'font-semibold' : ''"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
