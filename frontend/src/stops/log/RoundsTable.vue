<script setup lang="ts">
import { api, type Schemas } from '@/api/client'
import ChartFrame from '@/charts/ChartFrame.vue'
import { tip } from '@/charts/tip'
import { useLines } from '@/charts/useLines'
import { phrase } from '@/phrases/log'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import SeverityMark from '@/ui/SeverityMark.vue'
import { dateOf } from '@/ui/when'
import { computed } from 'vue'

/** Rounds with the meter: a row for each, a column for each battery, and how they went apart. */
const plan = usePlan()
const { answer } = useAsked<Schemas['RoundsView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/log/rounds', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const rows = computed(() => [...(answer.value?.rounds.slice(-answer.value.rows) ?? [])].reverse())
const isOff = (number: number) => answer.value?.off.includes(number) ?? false

const { look, picture } = useLines()
const DAY = 86400
const option = computed(() => {
  const { rounds, numbers } = answer.value!
  const first = rounds[0]!.at
  return picture({
    grid: { top: 10, bottom: 24, left: 60, right: 30 },
    x: {
      max: Math.max(1, (rounds.at(-1)!.at - first) / DAY),
      axisLabel: {
        ...look.value.text,
        formatter: (days: number) =>
          dateOf(new Date((first + days * DAY) * 1000).toISOString().slice(0, 10), 'short'),
        hideOverlap: true,
      },
    },
    y: { scale: true, unit: 'V', splitNumber: 3 },
    tell: (items) => {
      const at = items[0]?.dataIndex
      const round = at === undefined ? undefined : rounds[at]
      return round
        ? tip(
            dateOf(round.day),
            ...numbers.flatMap((n, i): [string, string][] =>
              round.texts[i]
                ? [[phrase('log.rounds.battery', { number: n }), round.texts[i]!]]
                : [],
            ),
          )
        : ''
    },
    series: numbers.map((n, i) => ({
      type: 'line',
      name: String(n),
      data: rounds.map((r) => [(r.at - first) / DAY, r.volts[i]]),
      connectNulls: true,
      symbolSize: isOff(n) ? 7 : 4,
      z: isOff(n) ? 3 : 2,
      color: isOff(n) ? look.value.ink : look.value.soft,
      lineStyle: { width: isOff(n) ? 2.5 : 1, type: isOff(n) ? 'solid' : 'dashed' },
      endLabel: isOff(n)
        ? { show: true, formatter: String(n), color: look.value.ink, fontWeight: 600 }
        : { show: false },
    })),
  })
})
</script>

<template>
  <section v-if="rows.length" data-rounds>
    <h2 class="text-xl">{{ phrase('log.rounds.title') }}</h2>
    <p v-for="s in answer!.says" :key="s" class="mt-1 flex gap-2 leading-snug">
      <SeverityMark severity="caution" class="mt-0.5 shrink-0" />{{ s }}
    </p>
    <div class="mt-2 grid gap-x-8 gap-y-4 lg:grid-cols-[3fr_2fr]">
      <div
        class="relative overflow-x-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('log.rounds.title')"
      >
        <table class="w-full text-right whitespace-nowrap">
          <thead>
            <tr class="border-b border-edge text-sm">
              <th scope="col" class="py-1 pr-3 text-left font-semibold">
                {{ phrase('log.rounds.day') }}
              </th>
              <th
                v-for="n in answer!.numbers"
                :key="n"
                scope="col"
                class="px-1.5 font-semibold"
                :class="isOff(n) ? 'text-caution' : ''"
              >
                <span class="sr-only">{{ phrase('log.rounds.battery', { number: n }) }}</span>
                <span aria-hidden="true">{{ n }}</span>
              </th>
              <th scope="col" class="pl-3 font-semibold">{{ phrase('log.rounds.apart') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows" :key="r.at" class="border-b border-line" data-round>
              <th scope="row" class="py-1.5 pr-3 text-left font-normal">{{ dateOf(r.day) }}</th>
              <td
                v-for="(n, i) in answer!.numbers"
                :key="n"
                class="px-1.5"
                :class="isOff(n) ? 'font-semibold text-caution' : ''"
              >
                {{ r.texts[i]?.replace(/\sV$/, '') || '–' }}
              </td>
              <td class="pl-3 text-soft">{{ r.apart }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <ChartFrame
        v-if="answer!.rounds.length > 2"
        :option="option"
        :height="190"
        :title="phrase('log.rounds.picture')"
      />
    </div>
  </section>
</template>
