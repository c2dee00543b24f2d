<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { useLoads } from '@/stores/useLoads'
import { useReference } from '@/stores/reference'
import PictureTile from '@/ui/PictureTile.vue'
import { computed } from 'vue'
import { pictureOf } from './loadPictures'

/** What is run, ticked by picture; with `big` those that size the inverter. */
const props = defineProps<{ big?: boolean }>()
const plan = usePlan()
const reference = useReference()
const kind = computed(() => plan.document.rig.kind as string)
const { loads, add } = useLoads()
const common = computed(() =>
  (reference.data?.commonest ?? []).filter(
    (c) => c.big === Boolean(props.big) && (!c.kinds.length || c.kinds.includes(kind.value)),
  ),
)
const known = computed(() => new Set((reference.data?.commonest ?? []).map((c) => c.appliance)))
/** Those that are listed beyond the pictures. */
const more = computed(() => loads.value.filter((l) => !known.value.has(l.name)).length)
const placeOf = (of: Schemas['CommonLoadView']) =>
  loads.value.findIndex((l) => l.name === of.appliance)

const entryOf = (of: Schemas['CommonLoadView']) =>
  reference.data?.appliances.find((a) => a.name === of.appliance)

function toggle(of: Schemas['CommonLoadView']) {
  const place = placeOf(of)
  if (place >= 0) {
    plan.edit(phrase('questions.run.remove', { name: of.name }), {
      op: 'remove',
      path: `/day/loads/${place}`,
    })
    return
  }
  const entry = entryOf(of)
  if (entry) add(entry, of.quantity)
}

function saysOf(of: Schemas['CommonLoadView']) {
  const found = entryOf(of)
  const quantity = loads.value[placeOf(of)]?.quantity ?? of.quantity
  return `${quantity === 1 ? '' : `${quantity} × `}${found?.says ?? ''}`
}
</script>

<template>
  <div
    class="grid grid-cols-2 gap-2 lg:grid-cols-4"
    role="group"
    :aria-label="phrase('questions.run.loads')"
  >
    <PictureTile
      v-for="c in common"
      :key="c.key"
      :icon="pictureOf(c.key)"
      :name="c.name"
      :says="saysOf(c)"
      :chosen="placeOf(c) >= 0"
      several
      :data-tile="c.key"
      @click="toggle(c)"
    />
  </div>
  <p class="mt-4 text-soft">
    {{ more && !big ? phrase('questions.run.more', { count: more }) : '' }}
    {{
      big
        ? phrase('questions.run.big_later')
        : phrase('questions.run.later', { all: reference.appliances.length })
    }}
  </p>
</template>
