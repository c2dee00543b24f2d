<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import { api, type Schemas } from '@/api/client'
import { grouped } from '@/ui/numbers'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { computed } from 'vue'

const props = defineProps<{ bankId: string; moment: number; soc: number; batteryClass: string }>()
const plan = usePlan()
const { answer } = useAsked<Schemas['FlowsView']>(
  () => props.bankId,
  (signal) =>
    api.GET('/api/rigs/{rig_id}/trial/flows', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { bank: props.bankId } },
    }),
)
const at = computed(() => Math.min(props.moment, (answer.value?.labels.length ?? 1) - 1))
const into = computed(() =>
  (answer.value?.into ?? []).map((f) => ({ name: f.name, watts: f.watts[at.value] ?? 0 })),
)
const out = computed(() =>
  (answer.value?.out ?? []).map((f) => ({ name: f.name, watts: f.watts[at.value] ?? 0 })),
)
const bank = computed(() => answer.value?.bank[at.value] ?? 0)
const missing = computed(() => answer.value?.unserved[at.value] ?? 0)
const states = computed(() => {
  const bits = answer.value?.state[at.value] ?? 0
  return (answer.value?.states ?? []).filter((s) => bits & s.bit).map((s) => s.name)
})
const WIDE = 420
const BAR_X = 210
const rowsOf = (n: number) => Array.from({ length: n }, (_, i) => 26 + i * 44)
const height = computed(() => Math.max(into.value.length, out.value.length, 2) * 44 + 118)
const barEnd = computed(() => height.value - 92)
/** So thick that ten times the watts are seen to be more, and small ones not lost. */
const thick = (w: number) => (w < 1 ? 0 : Math.min(22, 1.6 + Math.sqrt(w) * 0.55))
const text = (w: number) => `${grouped(Math.abs(w))} W`
const short = (name: string) => (name.length > 21 ? `${name.slice(0, 20)}…` : name)
</script>

<template>
  <figure v-if="answer" data-flows :data-flow-bank="answer.id">
    <figcaption class="flex flex-wrap items-baseline justify-between gap-2">
      <b class="font-semibold" data-flow-at>{{ answer.labels[at] }}</b>
      <span class="text-soft" data-flow-state>{{
        states.join(', ') || phrase('trial.flow_picture.problem')
      }}</span>
    </figcaption>
    <svg
      :viewBox="`0 0 ${WIDE} ${height}`"
      class="mt-1 w-full max-w-xl"
      role="img"
      :aria-label="
        phrase('trial.flow_picture.bank', {
          labels: answer.labels[at],
          into: into.map((f) => `${f.name} ${text(f.watts)}`).join(', '),
          out: out.map((f) => `${f.name} ${text(f.watts)}`).join(', '),
          bank: text(bank),
          bank2: bank < 0 ? 'out' : 'in',
        })
      "
    >
      <g font-size="13" fill="var(--ink)">
        <g v-for="(f, i) in into" :key="f.name">
          <line
            v-if="thick(f.watts)"
            x1="118"
            :x2="BAR_X"
            :y1="rowsOf(into.length)[i]! + 4"
            :y2="rowsOf(into.length)[i]! + 4"
            stroke="var(--caution)"
            :stroke-width="thick(f.watts)"
          />
          <text x="0" :y="rowsOf(into.length)[i]" :fill="f.watts ? 'var(--ink)' : 'var(--soft)'">
            {{ short(f.name) }}
          </text>
          <text x="0" :y="rowsOf(into.length)[i]! + 17" font-weight="650">{{ text(f.watts) }}</text>
        </g>
        <g v-for="(f, i) in out" :key="f.name">
          <line
            v-if="thick(f.watts)"
            :x1="BAR_X"
            x2="292"
            :y1="rowsOf(out.length)[i]! + 4"
            :y2="rowsOf(out.length)[i]! + 4"
            stroke="var(--note)"
            :stroke-width="thick(f.watts)"
          />
          <text x="300" :y="rowsOf(out.length)[i]" :fill="f.watts ? 'var(--ink)' : 'var(--soft)'">
            {{ short(f.name) }}
          </text>
          <text x="300" :y="rowsOf(out.length)[i]! + 17" font-weight="650">
            {{ text(f.watts) }}
          </text>
        </g>
        <line
          :x1="BAR_X"
          :x2="BAR_X"
          y1="14"
          :y2="barEnd"
          stroke="var(--ink)"
          stroke-width="5"
          stroke-linecap="round"
        />
        <line
          v-if="thick(bank)"
          :x1="BAR_X"
          :x2="BAR_X"
          :y1="barEnd"
          :y2="height - 62"
          :stroke="`var(--chem-${batteryClass})`"
          :stroke-width="thick(Math.abs(bank))"
        />
        <line
          v-else-if="thick(-bank)"
          :x1="BAR_X"
          :x2="BAR_X"
          :y1="barEnd"
          :y2="height - 62"
          :stroke="`var(--chem-${batteryClass})`"
          :stroke-width="thick(-bank)"
          stroke-dasharray="7 4"
        />
        <rect
          :x="BAR_X - 70"
          :y="height - 60"
          width="140"
          height="34"
          rx="6"
          fill="var(--sheet)"
          stroke="var(--edge)"
        />
        <rect
          :x="BAR_X - 68"
          :y="height - 58"
          :width="136 * soc"
          height="30"
          rx="5"
          :fill="`var(--chem-${batteryClass})`"
          opacity="0.28"
        />
        <text :x="BAR_X" :y="height - 38" text-anchor="middle" font-weight="650">
          {{ Math.round(soc * 100) }} %
        </text>
        <text :x="BAR_X" :y="height - 8" text-anchor="middle">
          {{
            Math.abs(bank) < 1
              ? phrase('trial.flow_picture.rest')
              : phrase('trial.flow_picture.bank_bank2_bank', {
                  bank: text(bank),
                  bank2: bank < 0 ? phrase('trial.flow_picture.out') : 'into',
                })
          }}
        </text>
      </g>
    </svg>
    <p v-if="missing" class="font-semibold text-blocking">
      {{ phrase('trial.flow_picture.supplied', { missing: text(missing) }) }}
    </p>
  </figure>
</template>
