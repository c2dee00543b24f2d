<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { usePlan } from '@/stores/plan'
import { useRows } from '@/stores/useRows'
import { Plus } from '@lucide/vue'
import { computed, nextTick } from 'vue'
import OwnModel from './OwnModel.vue'

const plan = usePlan()
const own = computed(() => plan.document.own_models)
const rows = useRows(
  () => '/own_models',
  () => own.value,
)

/** A number that neither an id nor a name has yet. */
function fresh(): number {
  const taken = new Set(own.value.flatMap((m) => [m.id, m.name]))
  let n = own.value.length + 1
  while (taken.has(`own-${n}`) || taken.has(phrase('banks.own_models.battery', { n }))) n++
  return n
}

async function enter(label: string, from: Record<string, unknown>) {
  const n = fresh()
  const value = { ...from, id: `own-${n}`, name: phrase('banks.own_models.battery', { n }) }
  await rows.add(label, value)
  await nextTick()
  document.querySelector<HTMLInputElement>(`[data-own="own-${n}"] input`)?.focus()
}

const remove = (i: number) => rows.remove(phrase('banks.own_models.remove_battery'), i)
</script>

<template>
  <div>
    <OwnModel
      v-for="(m, i) in own"
      :key="m.id as string"
      :index="i"
      @copy="enter(phrase('banks.own_models.copy_battery'), m)"
      @remove="remove(i)"
    />
    <button
      type="button"
      class="btn mt-4"
      @click="enter(phrase('banks.own_models.enter_battery'), { maker: 'My', rated_hours: 5 })"
    >
      <Plus :size="15" aria-hidden="true" /> {{ phrase('banks.own_models.enter_battery_label') }}
    </button>
  </div>
</template>
