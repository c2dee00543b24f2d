<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { Operation } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { Copy, Trash2 } from '@lucide/vue'
import { computed } from 'vue'
import { GROUPS, LABEL, type Own } from './ownFields'
import SpecField from '@/ui/SpecField.vue'

const props = defineProps<{ index: number }>()
defineEmits<{ copy: []; remove: [] }>()
const plan = usePlan()
const reference = useReference()
const model = computed(() => plan.document.own_models[props.index]!)
const at = computed(() => `/own_models/${props.index}`)
const classes = computed(() => [
  ...(reference.data?.classes.map((c) => ({ value: c.key, name: c.name })) ?? []),
  { value: 'starting', name: phrase('banks.own_model.starting_battery') },
  { value: 'cobalt', name: phrase('banks.own_model.lithium_cobalt_nmc_nca') },
])
const lithium = computed(() => model.value.battery_class === 'lfp')
const groups = computed(() =>
  GROUPS.filter((g) => (!g.lithium || lithium.value) && (!g.when || model.value[g.when])),
)
/** A field as the form shows it; one that no label or offer gave says so. */
const marked = (field: Own): Own =>
  model.value.typical.includes(field.key)
    ? { ...field, hint: phrase('banks.own_model.typical') }
    : field
const used = computed(() => plan.document.candidates.some((c) => c.model === model.value.id))

/** Opened by itself where something in it was refused. */
const open = (keys: string[]) => keys.some((k) => plan.drafts[`${at.value}/${k}`]?.message)

/** A battery that changes its class takes the candidates built of it along. */
function withClass(to: unknown): Operation[] {
  const built = plan.document.candidates.flatMap((c, k): Operation[] =>
    c.model === model.value.id
      ? [{ op: 'replace', path: `/candidates/${k}/battery_class`, value: to }]
      : [],
  )
  return [...built, ...reference.withClass(at.value, model.value.battery_class, to, true)]
}
</script>

<template>
  <div
    class="border-b border-line py-4"
    role="group"
    :aria-label="model.name as string"
    :data-own="model.id"
  >
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-4 lg:grid-cols-6">
      <PlanField :path="`${at}/maker`" :label="phrase('banks.own_model.maker')" text />
      <PlanField :path="`${at}/name`" :label="phrase('banks.own_model.name')" text />
      <PlanChoice
        :path="`${at}/battery_class`"
        :label="phrase('banks.own_model.class')"
        :value="model.battery_class as string"
        :options="classes"
        :also="withClass"
        class="col-span-2"
      />
      <PlanCheck
        :path="`${at}/used`"
        :label="phrase('banks.own_model.bought_used')"
        :value="model.used === true"
        class="col-span-2 self-end"
      />
      <SpecField
        v-for="f in LABEL"
        :key="f.key"
        :at="at"
        :field="marked(f)"
        :value="model[f.key]"
      />
    </div>
    <details
      v-for="g in groups"
      :key="g.key"
      class="mt-2"
      :open="g.when !== undefined || open(g.fields.map((f) => f.key))"
      :data-group="g.key"
    >
      <summary class="discloses">
        {{ g.name }}
      </summary>
      <div class="mt-1 grid grid-cols-2 gap-3 sm:grid-cols-4 lg:grid-cols-6">
        <SpecField
          v-for="f in g.fields"
          :key="f.key"
          :at="at"
          :field="marked(f)"
          :value="model[f.key]"
        />
      </div>
    </details>
    <div class="mt-3 flex gap-2">
      <button type="button" class="btn" @click="$emit('copy')">
        <Copy :size="15" aria-hidden="true" /> {{ phrase('banks.own_model.copy') }}
      </button>
      <button
        type="button"
        class="btn"
        :disabled="used"
        :title="used ? phrase('banks.own_model.comparison_remove_first') : undefined"
        @click="$emit('remove')"
      >
        <Trash2 :size="15" aria-hidden="true" /> {{ phrase('banks.own_model.remove') }}
      </button>
    </div>
  </div>
</template>
