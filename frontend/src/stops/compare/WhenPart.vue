<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'
import SizesByYear from './SizesByYear.vue'

const plan = usePlan()
const { answer, asking } = useAsked<Schemas['WhenView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/compare/when', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const columns = computed(() => plan.rig!.compare.compared_banks)
const column = (id: string) => columns.value.find((c) => c.id === id)
</script>

<template>
  <div v-if="answer" :aria-busy="asking">
    <section data-options>
      <h2 class="text-xl">{{ phrase('compare.when_part.when') }}</h2>
      <p class="max-w-3xl text-soft">
        {{ phrase('compare.when_part.recommended_bank_bought_other') }}
      </p>
      <p v-if="!answer.purchase_options.length" class="mt-2">
        {{ phrase('compare.when_part.verdict_recommend_buying') }}
      </p>
      <div
        v-else
        class="relative mt-3 overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('compare.when_part.ways_buy')"
      >
        <table class="w-full min-w-[44rem]">
          <thead>
            <tr class="text-left text-sm text-soft">
              <th class="py-1 pr-4 font-semibold">{{ phrase('compare.when_part.how') }}</th>
              <th class="pr-4 font-semibold">{{ phrase('compare.when_part.up_front_cost') }}</th>
              <th class="pr-4 font-semibold">{{ phrase('compare.when_part.over_years') }}</th>
              <th class="pr-4 font-semibold">
                {{ phrase('compare.when_part.compared_buying_now') }}
              </th>
              <th class="font-semibold">{{ phrase('compare.when_part.result') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="o in answer.purchase_options"
              :key="o.key"
              class="border-t border-line align-top"
              :data-option="o.key"
            >
              <th scope="row" class="py-2 pr-4 text-left font-semibold whitespace-nowrap">
                {{ o.name }}
              </th>
              <td class="py-2 pr-4 whitespace-nowrap"><FigureLink :figure="o.cash" /></td>
              <td class="py-2 pr-4 whitespace-nowrap"><FigureLink :figure="o.lifetime" /></td>
              <td class="py-2 pr-4 whitespace-nowrap">
                <FigureLink v-if="o.key !== 'now'" :figure="o.more" />
              </td>
              <td class="max-w-md py-2 leading-snug">
                <SentenceText :tokens="o.says" />
                <span v-if="!o.works" class="block text-sm text-caution">
                  {{ phrase('compare.when_part.until_then_bank_last') }}
                </span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
    <SizesByYear class="mt-8" />
    <section class="mt-8" data-packages>
      <h2 class="text-xl">{{ phrase('compare.when_part.how_much_buy_once') }}</h2>
      <p class="max-w-3xl text-soft">
        {{ phrase('compare.when_part.smallest_suitable_purchase_comes') }}
      </p>
      <details
        v-for="c in answer.candidates"
        :key="c.id"
        class="sheet mt-3 px-5 py-2"
        :open="c.id === plan.rig!.compare.verdict.winner"
        :data-packages="c.id"
      >
        <summary class="discloses flex min-h-11 w-full items-center">
          <h3 class="flex items-center gap-2 text-lg text-ink">
            <ChemistryMark :battery-class="column(c.id)!.battery_class" />
            {{ column(c.id)!.title }}
          </h3>
        </summary>
        <ul class="mt-2 mb-3 grid gap-x-6 gap-y-4 md:grid-cols-3">
          <li v-for="p in c.purchase_sizes" :key="p.key" class="border-t-2 border-line pt-2">
            <p class="font-semibold">{{ p.name }}</p>
            <p class="text-xl font-semibold"><FigureLink :figure="p.cash" /></p>
            <p class="text-sm text-soft">
              {{ p.strings }} {{ p.strings === 1 ? 'string' : 'strings' }},
              <FigureLink :figure="p.usable" class="text-ink" />
              {{ phrase('compare.when_part.usable') }}
              <FigureLink :figure="p.nights" class="text-ink" />
            </p>
            <p v-if="p.buys.length" class="mt-1 text-sm leading-snug">
              {{
                phrase('compare.when_part.includes', {
                  buys: p.buys.map((b) => b.replace(/\.$/, '')).join('; '),
                })
              }}
            </p>
            <p v-if="p.leaves.length" class="mt-1 text-sm leading-snug text-soft">
              {{
                phrase('compare.when_part.leave_until_later', {
                  leaves: p.leaves.map((b) => b.replace(/\.$/, '')).join('; '),
                })
              }}
            </p>
          </li>
        </ul>
      </details>
    </section>
  </div>
</template>
