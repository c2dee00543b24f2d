<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import { api, type Schemas } from '@/api/client'
import { markOf } from '@/charts/sameClass'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import ToolField from '@/ui/ToolField.vue'
import { computed, defineAsyncComponent, ref } from 'vue'

const ChargeChart = defineAsyncComponent(() => import('./ChargeChart.vue'))
const plan = usePlan()
const source = ref('')
const from = ref('50 %')
const to = ref('100 %')
const { answer, problems } = useAsked<Schemas['CurvesView']>(
  () => `${source.value} ${from.value} ${to.value}`,
  (signal) =>
    api.GET('/api/rigs/{rig_id}/charging/curves', {
      signal,
      params: {
        path: { rig_id: plan.rig!.id },
        query: { source: source.value, start: from.value, end: to.value },
      },
    }),
)
const charging = computed(() =>
  plan.rig!.sources.filter((s) => !['generator', 'upkeep'].includes(s.kind)),
)
const problem = (path: string) => problems.value.find((p) => p.path === path)?.message ?? ''
</script>

<template>
  <p class="mb-3 max-w-3xl text-pretty text-soft">
    {{ phrase('charging.curves_part.first_source_limits_current') }}
  </p>
  <div class="flex flex-wrap items-end gap-3">
    <label class="w-60">
      <span class="eyebrow mb-1 block">{{ phrase('charging.curves_part.charged') }}</span>
      <select v-model="source" class="field" data-by>
        <option value="">{{ phrase('charging.curves_part.sources_together') }}</option>
        <option v-for="s in charging" :key="s.id" :value="s.id">{{ s.name }}, {{ s.most }}</option>
      </select>
    </label>
    <ToolField
      v-model="from"
      :label="phrase('charging.curves_part.from')"
      class="w-24"
      :problem="problem('/start')"
      data="from"
      help="curve/from"
    />
    <ToolField
      v-model="to"
      :label="phrase('charging.curves_part.to')"
      class="w-24"
      :problem="problem('/end')"
      data="to"
      help="curve/to"
    />
  </div>
  <template v-if="answer">
    <p v-if="answer.says" class="mt-4 text-soft">{{ answer.says }}</p>
    <template v-else>
      <ChargeChart :curves="answer.curves" class="mt-4" />
      <div
        class="relative mt-6 overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('charging.curves_part.charging_time')"
      >
        <table class="w-full min-w-[38rem]">
          <thead>
            <tr class="text-left text-sm text-soft">
              <th class="py-1 font-semibold">{{ phrase('charging.curves_part.bank') }}</th>
              <th class="pr-4 font-semibold">{{ phrase('charging.curves_part.n80') }}</th>
              <th class="pr-4 font-semibold">{{ phrase('charging.curves_part.n95') }}</th>
              <th class="pr-4 font-semibold">{{ phrase('charging.curves_part.full') }}</th>
              <th class="font-semibold">{{ phrase('charging.curves_part.ends') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="c in answer.curves"
              :key="c.id"
              class="border-t border-line"
              :data-charge="c.id"
            >
              <th scope="row" class="py-1.5 pr-4 text-left font-semibold">
                <span class="flex items-center gap-2">
                  <ChemistryMark
                    :battery-class="c.battery_class"
                    :mark="markOf(answer.curves, c.id)"
                  />
                  {{ c.title }}
                </span>
              </th>
              <td
                v-for="(t, i) in [c.to_80, c.to_95, c.to_full]"
                :key="i"
                class="pr-4"
                :class="t === 'never' ? 'font-semibold text-caution' : ''"
              >
                {{ t }}
              </td>
              <td>{{ c.ends }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </template>
</template>
