<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { Check, Minus, Printer } from '@lucide/vue'
import { computed } from 'vue'

/** What the bank in use went through and cost so far, and its warranty. */
const plan = usePlan()
const { answer } = useAsked<Schemas['SoFarView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/log/so-far', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const paper = computed(() => `/api/rigs/${plan.rig!.id}/log/warranty/paper`)
const tables = computed(() => [
  { key: 'wear', title: phrase('log.so_far.wear'), rows: answer.value!.wear, says: [] },
  {
    key: 'charging',
    title: phrase('log.so_far.charging'),
    rows: answer.value!.charging,
    says: answer.value!.charging_says,
  },
  {
    key: 'money',
    title: phrase('log.so_far.money'),
    rows: answer.value!.money,
    says: answer.value!.money_says,
  },
])
</script>

<template>
  <p class="max-w-3xl text-pretty text-soft">{{ phrase('log.so_far.lead') }}</p>
  <p v-if="answer && !answer.age" class="mt-6 max-w-xl text-lg text-soft" data-so-far-none>
    {{ phrase('log.so_far.none') }}
  </p>
  <template v-else-if="answer">
    <h2 class="mt-4 text-2xl">{{ answer.title }}</h2>
    <p class="text-soft" data-so-far-since>
      {{ phrase('log.so_far.since', { age: answer.age, logged: answer.logged }) }}
    </p>
    <div class="mt-4 gap-6 lg:columns-2">
      <section
        v-for="t in tables.filter((t) => t.rows.length || t.says.length)"
        :key="t.key"
        class="sheet mb-6 break-inside-avoid p-5"
        :data-so-far="t.key"
      >
        <h3 class="text-xl">{{ t.title }}</h3>
        <table v-if="t.rows.length" class="mt-2 w-full text-left tabular-nums">
          <thead>
            <tr class="border-b border-edge">
              <td />
              <th scope="col" class="eyebrow py-1 pr-3 text-right">
                {{ phrase('log.so_far.now') }}
              </th>
              <th scope="col" class="eyebrow py-1 text-right">
                {{ phrase('log.so_far.planned') }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in t.rows" :key="row.key" class="border-b border-line align-baseline">
              <th scope="row" class="py-1.5 pr-3 font-normal text-pretty">{{ row.name }}</th>
              <td class="py-1.5 pr-3 text-right font-semibold whitespace-nowrap">{{ row.now }}</td>
              <td class="py-1.5 text-right whitespace-nowrap text-soft">
                {{ row.planned || '—' }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-for="s in t.says" :key="s" class="mt-2 max-w-prose text-pretty text-soft">{{ s }}</p>
      </section>
    </div>
    <section v-if="answer.warranty" class="sheet mt-6 p-5" data-warranty>
      <h3 class="text-xl">{{ phrase('log.so_far.warranty') }}</h3>
      <p class="mt-1 font-semibold">{{ answer.warranty.says }}</p>
      <p v-if="answer.warranty.threshold" class="mt-1 max-w-prose text-pretty">
        {{ answer.warranty.threshold }}
      </p>
      <p v-if="answer.warranty.conditions" class="mt-1 max-w-prose text-pretty text-soft">
        {{ phrase('log.so_far.conditions', { conditions: answer.warranty.conditions }) }}
      </p>
      <h4 class="eyebrow mt-4">{{ phrase('log.so_far.record') }}</h4>
      <ul class="mt-1 grid gap-x-8 lg:grid-cols-2">
        <li
          v-for="r in answer.warranty.record"
          :key="r.key"
          class="flex gap-2.5 border-b border-line py-2"
          :data-record="r.key"
        >
          <Check
            v-if="r.there"
            :size="18"
            class="mt-0.5 shrink-0 text-sea"
            :aria-label="phrase('log.so_far.there')"
          />
          <Minus
            v-else
            :size="18"
            class="mt-0.5 shrink-0 text-caution"
            :aria-label="phrase('log.so_far.missing')"
          />
          <span
            ><span class="font-semibold">{{ r.name }}</span>
            <span v-if="r.how" class="block text-pretty text-soft">{{ r.how }}</span></span
          >
        </li>
      </ul>
      <p class="mt-4 print:hidden">
        <a class="btn" :href="paper" target="_blank" rel="noopener">
          <Printer :size="16" aria-hidden="true" /> {{ phrase('log.so_far.print') }}
        </a>
      </p>
    </section>
  </template>
</template>
