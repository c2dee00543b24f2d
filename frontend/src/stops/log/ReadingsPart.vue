<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { FileDown, Trash2 } from '@lucide/vue'
import { computed, defineAsyncComponent, ref } from 'vue'
import { dateOf } from '@/ui/when'
import LiveReadings from './LiveReadings.vue'
import ReadingsImport from './ReadingsImport.vue'
import { useReadings } from './useReadings'

/** What a monitor logged: lines over time, days in figures, and the files it came from. */
const ReadingsChart = defineAsyncComponent(() => import('./ReadingsChart.vue'))
const UseAgainstPlan = defineAsyncComponent(() => import('./UseAgainstPlan.vue'))
const { plan, bank, chart, days, files, failed, draw, listDays, changed, remove } = useReadings()
const SPANS = [1, 7, 31, 365]
const span = ref(0)
const asking = ref(0)
const there = computed(() => Boolean(chart.value?.count || files.value.length))

function show(width: number) {
  span.value = width
  const c = chart.value!
  if (!width) return draw()
  const end = Math.min(c.last, Math.max(c.to_day, c.first + width - 1))
  return draw(end - width + 1, end)
}
function move(by: number) {
  const c = chart.value!
  const end = Math.max(c.first + span.value - 1, Math.min(c.last, c.to_day + by * span.value))
  return draw(end - span.value + 1, end)
}
/** A day of the table, in the picture. */
function look(day: string) {
  span.value = 1
  const at = Date.parse(`${day}T00:00Z`) / 864e5
  void draw(at, at)
  document.querySelector('[data-readings]')?.scrollIntoView({ block: 'start' })
}
async function choose() {
  span.value = 0
  await Promise.all([draw(), listDays()])
}
const stretch = computed(() => {
  const c = chart.value!
  return c.from_day === c.to_day
    ? dateOf(c.from_day)
    : phrase('log.readings.stretch', { first: dateOf(c.from_day), last: dateOf(c.to_day) })
})
</script>

<template>
  <p class="max-w-3xl text-pretty text-soft">{{ phrase('log.readings.lead') }}</p>
  <ReadingsImport :rig="plan.rig!.id" class="mt-4" @done="changed" />
  <LiveReadings :rig="plan.rig!.id" class="mt-3" @kept="changed" />
  <p v-if="failed" class="mt-4 text-soft">{{ phrase('log.readings.not_loaded') }}</p>
  <section v-if="chart?.series.length" class="sheet mt-5 p-4" data-readings>
    <div class="flex flex-wrap items-end gap-3">
      <h2 class="text-xl">{{ stretch }}</h2>
      <span class="grow" />
      <label v-if="chart.banks.length > 1">
        <span class="sr-only">{{ phrase('log.stop.bank') }}</span>
        <select v-model="bank" class="field" @change="choose">
          <option v-for="b in chart.banks" :key="b.key" :value="b.key">{{ b.name }}</option>
        </select>
      </label>
      <div class="flex flex-wrap gap-1" role="group" :aria-label="phrase('log.readings.span')">
        <button
          v-for="s in [0, ...SPANS.filter((d) => d <= chart!.last - chart!.first)]"
          :key="s"
          type="button"
          class="btn"
          :class="span === s ? 'btn-main' : ''"
          :aria-pressed="span === s"
          @click="show(s)"
        >
          {{ s ? phrase('log.readings.days', { count: s }) : phrase('log.readings.all') }}
        </button>
      </div>
      <div v-if="span" class="flex gap-1">
        <button
          type="button"
          class="btn"
          :disabled="chart.from_day <= chart.first"
          @click="move(-1)"
        >
          {{ phrase('log.readings.earlier') }}
        </button>
        <button type="button" class="btn" :disabled="chart.to_day >= chart.last" @click="move(1)">
          {{ phrase('log.readings.later') }}
        </button>
      </div>
    </div>
    <ReadingsChart :chart="chart" class="mt-2" />
  </section>
  <UseAgainstPlan v-if="chart?.series.length" :key="chart.last + files.length" class="mt-5" />
  <section v-if="days?.days.length" class="mt-6" data-reading-days>
    <h2 class="text-xl">{{ phrase('log.readings.by_day') }}</h2>
    <div class="overflow-x-auto">
      <table class="mt-1 w-full text-right tabular-nums">
        <thead>
          <tr class="border-b border-edge align-bottom">
            <th
              v-for="(h, i) in days.head"
              :key="h"
              scope="col"
              class="eyebrow px-2 py-1.5 first:pl-0"
              :class="i ? '' : 'text-left'"
            >
              {{ h }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="d in days.days" :key="d.day" class="border-b border-line" :data-day="d.day">
            <th scope="row" class="py-1 pr-2 text-left font-normal whitespace-nowrap">
              <button type="button" class="btn btn-quiet -ml-3" @click="look(d.day)">
                {{ dateOf(d.day) }}
              </button>
            </th>
            <td
              v-for="(cell, i) in d.cells"
              :key="i"
              class="px-2 py-1 whitespace-nowrap"
              :class="d.whole ? '' : 'text-soft'"
            >
              {{ cell }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="days.more" type="button" class="btn mt-3" @click="listDays(true)">
      {{ phrase('log.readings.more_days') }}
    </button>
  </section>
  <section v-if="files.length" class="mt-6" data-reading-files>
    <div class="flex flex-wrap items-end gap-3">
      <h2 class="text-xl">{{ phrase('log.readings.files') }}</h2>
      <span class="grow" />
      <a
        class="btn"
        :href="`/api/rigs/${plan.rig!.id}/log/readings.csv?bank=${chart?.bank ?? ''}`"
        download
        data-readings-csv
        ><FileDown :size="16" aria-hidden="true" /> {{ phrase('log.readings.csv') }}</a
      >
    </div>
    <ul class="mt-1 divide-y divide-line border-y border-line">
      <li v-for="f in files" :key="f.id" class="flex items-start gap-3 py-2.5">
        <div class="min-w-0 grow leading-snug">
          <p class="break-words">
            <b>{{ f.name }}</b> <span class="text-soft">· {{ f.bank_name }} · {{ f.period }}</span>
          </p>
          <ul class="text-soft">
            <li v-for="(n, i) in f.findings" :key="i" :data-found="n.key">{{ n.text }}</li>
          </ul>
        </div>
        <template v-if="asking === f.id">
          <button type="button" class="btn" @click="remove(f)">
            {{ phrase('log.readings.remove_sure') }}
          </button>
          <button type="button" class="btn btn-quiet" @click="asking = 0">
            {{ phrase('log.readings.keep') }}
          </button>
        </template>
        <button
          v-else
          type="button"
          class="btn btn-quiet btn-icon"
          :aria-label="phrase('log.readings.remove', { name: f.name })"
          @click="asking = f.id"
        >
          <Trash2 :size="16" />
        </button>
      </li>
    </ul>
  </section>
  <p v-if="chart && !there" class="mt-8 max-w-xl text-lg text-soft" data-readings-empty>
    {{ phrase('log.readings.empty') }}
  </p>
</template>
