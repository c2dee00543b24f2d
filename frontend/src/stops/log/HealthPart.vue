<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { computed, defineAsyncComponent } from 'vue'
import { dateOf } from '@/ui/when'

/** How healthy the bank in use is, how long it will last, and by what that is known. */
const HealthChart = defineAsyncComponent(() => import('./HealthChart.vue'))
const plan = usePlan()
const { answer } = useAsked<Schemas['HealthView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/log/health', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const percent = (value: number) => `${Math.round(100 * Math.max(0, value))} %`
const expected = computed(() => {
  const [low, likely, high] = answer.value!.before.map((y) => y.toFixed(1))
  return phrase('log.health.expected', { low: low!, likely: likely!, high: high! })
})
</script>

<template>
  <p class="max-w-3xl text-pretty text-soft">{{ phrase('log.health.lead') }}</p>
  <p v-if="answer?.why_not" class="mt-6 max-w-xl text-lg text-soft" data-health-why>
    {{ answer.why_not }}
  </p>
  <template v-else-if="answer">
    <section class="sheet mt-4 p-5" data-health>
      <h2 class="flex flex-wrap items-center gap-x-2 text-xl">
        <ChemistryMark :battery-class="answer.battery_class" /> {{ answer.title }}
        <span class="text-base font-normal text-soft">{{
          phrase('log.health.since', { day: dateOf(answer.since) })
        }}</span>
      </h2>
      <div class="mt-3 grid gap-x-10 gap-y-1 text-lg font-semibold sm:grid-cols-[auto_auto_1fr]">
        <p data-health-now>{{ answer.now }}</p>
        <p data-health-lasts>{{ answer.lasts }}</p>
      </div>
      <ul class="mt-1 max-w-3xl">
        <li v-for="s in answer.said" :key="s">{{ s }}</li>
        <li class="text-soft">{{ expected }}</li>
      </ul>
      <ul v-if="answer.off.length" class="mt-3 max-w-3xl space-y-2" data-health-off>
        <li v-for="o in answer.off" :key="o" class="flex gap-2">
          <SeverityMark severity="caution" class="mt-0.5 shrink-0" /> <span>{{ o }}</span>
        </li>
      </ul>
      <HealthChart :health="answer" class="mt-4" />
    </section>
    <section class="mt-6">
      <h2 class="text-xl">{{ phrase('log.health.measured') }}</h2>
      <p class="mt-1 max-w-3xl text-pretty text-soft">{{ phrase('log.health.add') }}</p>
      <table v-if="answer.seen.length" class="mt-2 w-full max-w-3xl text-left" data-health-seen>
        <thead>
          <tr class="border-b border-edge">
            <th scope="col" class="eyebrow py-1 pr-3">{{ phrase('log.health.when') }}</th>
            <th scope="col" class="eyebrow py-1 pr-3">{{ phrase('log.health.what') }}</th>
            <th scope="col" class="eyebrow py-1 pr-3 text-right">
              {{ phrase('log.health.says') }}
            </th>
            <th scope="col" class="eyebrow py-1 text-right">{{ phrase('log.health.doubt') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(s, i) in [...answer.seen].reverse()"
            :key="i"
            class="border-b border-line"
            :data-seen="s.kind"
          >
            <td class="py-1.5 pr-3 whitespace-nowrap">{{ dateOf(s.day) }}</td>
            <td class="py-1.5 pr-3">{{ s.name }}</td>
            <td class="py-1.5 pr-3 text-right font-semibold whitespace-nowrap">{{ s.text }}</td>
            <td class="py-1.5 text-right whitespace-nowrap text-soft">
              {{ phrase('log.health.doubt_text', { low: percent(s.low), high: percent(s.high) }) }}
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </template>
</template>
