<script setup lang="ts">
import type { Operation } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { Plus, Trash2 } from '@lucide/vue'
import { computed, nextTick } from 'vue'

const plan = usePlan()
const reference = useReference()
const own = computed(() => plan.document.own_models)
const classes = computed(
  () => reference.data?.classes.map((c) => ({ value: c.key, name: c.name })) ?? [],
)
const used = (id: unknown) => plan.document.candidates.some((c) => c.model === id)

/** A battery that changes its class takes the candidates built of it along. */
function withClass(i: number, to: unknown): Operation[] {
  const model = own.value[i]!
  const built = plan.document.candidates.flatMap((c, k): Operation[] =>
    c.model === model.id
      ? [{ op: 'replace', path: `/candidates/${k}/battery_class`, value: to }]
      : [],
  )
  return [...built, ...reference.withClass(`/own_models/${i}`, model.battery_class, to, true)]
}

async function add() {
  const taken = new Set(own.value.map((m) => m.id))
  let n = own.value.length + 1
  while (taken.has(`own-${n}`)) n++
  const value = { id: `own-${n}`, maker: 'My', name: `battery ${n}`, rated_hours: 5 }
  await plan.edit('enter a battery', { op: 'add', path: '/own_models/-', value })
  await nextTick()
  document.querySelector<HTMLInputElement>(`[data-own="own-${n}"] input`)?.focus()
}

function remove(i: number) {
  plan.edit('remove a battery', { op: 'remove', path: `/own_models/${i}` })
}
</script>

<template>
  <div>
    <div
      v-for="(m, i) in own"
      :key="m.id as string"
      class="grid grid-cols-2 gap-3 border-b border-line py-4 sm:grid-cols-4 lg:grid-cols-6"
      :data-own="m.id"
    >
      <PlanField :path="`/own_models/${i}/maker`" label="Maker" text />
      <PlanField :path="`/own_models/${i}/name`" label="Name" text />
      <PlanChoice
        :path="`/own_models/${i}/battery_class`"
        label="Class"
        :value="m.battery_class ?? null"
        :options="classes"
        :also="(v) => withClass(i, v)"
        class="col-span-2"
      />
      <PlanField :path="`/own_models/${i}/unit_v`" label="Volts" unit="V" />
      <PlanField :path="`/own_models/${i}/rated_ah`" label="Capacity" unit="Ah" />
      <PlanField :path="`/own_models/${i}/rated_hours`" label="rated over" unit="h" />
      <PlanField :path="`/own_models/${i}/kg`" label="Weight" :unit="plan.rig!.units.weight" />
      <PlanField :path="`/own_models/${i}/price`" label="Price" :unit="plan.rig!.units.currency" />
      <PlanField :path="`/own_models/${i}/cycles`" label="Cycles" />
      <PlanField :path="`/own_models/${i}/cycles_at_dod`" label="at depth" />
      <PlanField :path="`/own_models/${i}/warranty_years`" label="Warranty" unit="years" />
      <PlanField :path="`/own_models/${i}/max_series`" label="Most in series" />
      <PlanField :path="`/own_models/${i}/max_parallel`" label="Most strings" />
      <PlanField :path="`/own_models/${i}/heater_w`" label="Heater" unit="W" placeholder="none" />
      <button
        type="button"
        class="btn self-end justify-self-start"
        :disabled="used(m.id)"
        :title="used(m.id) ? 'It is put up for comparison: take it down first.' : undefined"
        @click="remove(i)"
      >
        <Trash2 :size="15" aria-hidden="true" /> Remove
      </button>
    </div>
    <button type="button" class="btn mt-4" @click="add">
      <Plus :size="15" aria-hidden="true" /> Enter a battery from its label
    </button>
  </div>
</template>
