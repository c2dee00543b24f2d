<script setup lang="ts">
import { shelf } from '@/stores/shelf'
import { phrase } from '@/phrases/changeover'
import PlanField from '@/ui/PlanField.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Timer, Trash2 } from '@lucide/vue'
import { useRows } from '@/stores/useRows'
import { computed, onBeforeUnmount, ref } from 'vue'
import ProofChart from './ProofChart.vue'
import ProofTable from './ProofTable.vue'
import SimulatedMonitor from './SimulatedMonitor.vue'
import { useChangeover } from './useChangeover'

/** The acceptance test: what to expect, readings as they are taken, and what came of it. */
const { plan, view, steps } = useChangeover()
const proof = computed(() => view.value.proof!)
const key = `proof-begun:${plan.rig!.id}`
const begun = ref(Number(shelf.read(key)) || 0)
const now = ref(Date.now())
const clock = setInterval(() => (now.value = Date.now()), 1000)
onBeforeUnmount(() => clearInterval(clock))
const minutes = computed(() => (begun.value ? (now.value - begun.value) / 60_000 : 0))
const elapsed = computed(() => {
  const whole = Math.floor(minutes.value)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
})

function start() {
  begun.value = Date.now()
  shelf.write(key, String(begun.value))
}

const form = ref({ minutes: '', volts: '', amps: '' })
const problem = ref('')
const SHOWN: Record<string, string> = { promised: 'note', within: 'note', short: 'blocking' }

/** A name that no other reading has, in another window neither. */
const freshId = () => `r${Date.now().toString(36)}${Math.random().toString(36).slice(2, 6)}`

const take = (reading: { minutes: string; volts: string; amps: string }) =>
  list.add(phrase('changeover.proof.reading'), { id: freshId(), ...reading })

async function add() {
  const { volts, amps } = form.value
  if (!volts.trim()) {
    problem.value = phrase('changeover.proof.volts_missing')
    return
  }
  problem.value = ''
  await take({
    minutes: form.value.minutes || (begun.value ? minutes.value.toFixed(1) : '0'),
    volts,
    amps: amps || String(proof.value.amps).replace(/[^\d.,]/g, ''),
  })
  form.value = { minutes: '', volts: '', amps }
}

const remove = (index: number) => list.remove(phrase('changeover.proof.remove'), index)
const rows = computed(() => plan.document.changeover.proof)
const list = useRows(
  () => '/changeover/proof',
  () => rows.value,
)
const last = computed(() => Math.max(-1, ...rows.value.map((r) => Number(r.minutes))))

/** What was measured in the steps of the work, by step. */
const measured = (key: string) => steps.value.find((s) => s.key === key)?.measured ?? []
const shares = computed(() => measured('shared'))
const into = computed(() => measured('shared_in'))
</script>

<template>
  <div class="grid gap-x-8 gap-y-5 lg:grid-cols-[1fr_1.3fr]">
    <section class="min-w-0">
      <p class="text-lg text-pretty">
        {{
          phrase('changeover.proof.plan', {
            load: proof.load,
            amps: proof.amps,
            stop: proof.stop_v,
            hours: proof.hours,
            range: proof.hours_range,
          })
        }}
      </p>
      <p class="mt-1 text-soft">
        {{
          phrase('changeover.proof.expect', {
            ah: proof.expected_ah,
            least: proof.least_ah,
            temperature: proof.temperature,
          })
        }}
      </p>
      <p v-if="!proof.warm_enough" class="mt-2 flex gap-2">
        <SeverityMark severity="caution" class="mt-0.5 shrink-0" />{{
          phrase('changeover.proof.cold')
        }}
      </p>
      <p v-for="caution in proof.cautions" :key="caution" class="mt-2 flex gap-2">
        <SeverityMark severity="caution" class="mt-0.5 shrink-0" />{{ caution }}
      </p>
      <div class="mt-3 grid grid-cols-2 gap-3">
        <PlanField
          path="/changeover/test_a"
          :label="phrase('changeover.proof.test_a')"
          :placeholder="proof.amps"
        />
        <PlanField
          path="/changeover/celsius"
          :label="phrase('changeover.proof.celsius')"
          :placeholder="proof.temperature"
        />
      </div>
      <div class="mt-4 flex flex-wrap items-center gap-3">
        <button type="button" class="btn" data-start-test @click="start">
          <Timer :size="17" aria-hidden="true" />
          {{ begun ? phrase('changeover.proof.restart') : phrase('changeover.proof.start') }}
        </button>
        <p v-if="begun" class="text-xl font-semibold" role="timer">{{ elapsed }}</p>
      </div>
      <form class="mt-3 grid grid-cols-3 items-end gap-3" data-proof-form @submit.prevent="add">
        <label v-for="f in ['minutes', 'volts', 'amps'] as const" :key="f" class="block">
          <span class="eyebrow mb-1 block">{{
            f === 'minutes'
              ? phrase('changeover.proof.minutes')
              : f === 'volts'
                ? phrase('changeover.proof.volts')
                : phrase('changeover.proof.amps')
          }}</span>
          <input
            v-model="form[f]"
            class="field"
            autocomplete="off"
            :name="f"
            :placeholder="
              f === 'minutes' && begun ? minutes.toFixed(0) : f === 'amps' ? proof.amps : ''
            "
          />
        </label>
        <button type="submit" class="btn btn-main col-span-3" data-add-reading>
          {{ phrase('changeover.proof.add') }}
        </button>
      </form>
      <p v-if="problem" class="mt-1 text-blocking" role="alert">{{ problem }}</p>
      <SimulatedMonitor :every="proof.every" :last="last" :take="take" />
    </section>
    <section class="min-w-0">
      <p
        v-if="proof.says"
        class="mb-3 flex gap-2 text-lg font-semibold"
        :class="proof.verdict === 'short' ? 'text-blocking' : ''"
        role="status"
        :data-proof="proof.verdict"
      >
        <SeverityMark
          v-if="SHOWN[proof.verdict]"
          :severity="SHOWN[proof.verdict]!"
          class="mt-1 shrink-0"
        />
        {{ proof.says }}
      </p>
      <ProofChart :proof="proof" :battery-class="view.battery_class" />
      <template v-if="rows.length">
        <p class="mt-3">{{ phrase('changeover.proof.taken', { ah: proof.taken }) }}</p>
        <ul class="mt-1 max-h-72 divide-y divide-line overflow-y-auto border-y border-line">
          <li v-for="(r, i) in rows" :key="r.id" class="flex items-center gap-4 py-0.5">
            <span class="w-20">{{ phrase('changeover.proof.at', { minutes: r.minutes }) }}</span>
            <span class="w-20">{{ r.volts }} V</span><span class="grow">{{ r.amps }} A</span>
            <button
              type="button"
              class="btn btn-quiet btn-icon"
              :aria-label="phrase('changeover.proof.remove_at', { minutes: r.minutes })"
              @click="remove(i)"
            >
              <Trash2 :size="16" />
            </button>
          </li>
        </ul>
      </template>
    </section>
    <section v-if="measured('sources').length" class="min-w-0" data-sources-proof>
      <h2 class="text-xl">{{ phrase('changeover.proof.charging') }}</h2>
      <ProofTable
        :head="[
          phrase('changeover.proof.source'),
          phrase('changeover.proof.expected'),
          phrase('changeover.proof.now'),
          phrase('changeover.proof.old'),
        ]"
        :rows="
          measured('sources').map((m) => ({
            key: m.key,
            cells: [m.label, m.range, m.value, m.before],
            out: m.verdict === 'out',
          }))
        "
      />
    </section>
    <section v-if="shares.length" class="min-w-0" data-shares-proof>
      <h2 class="text-xl">{{ phrase('changeover.proof.shares') }}</h2>
      <ProofTable
        :head="[
          phrase('changeover.proof.string'),
          phrase('changeover.proof.out'),
          phrase('changeover.proof.in'),
        ]"
        :rows="
          shares.map((m, i) => ({
            key: m.key,
            cells: [m.label, m.value, into[i]?.value ?? ''],
            out: m.verdict === 'out' || into[i]?.verdict === 'out',
          }))
        "
      />
    </section>
  </div>
</template>
