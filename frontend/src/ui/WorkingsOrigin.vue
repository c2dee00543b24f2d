<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import type { WorkingsView } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import { ORIGINS } from './origins'
import PlanField from './PlanField.vue'

const props = defineProps<{ workings: WorkingsView }>()
const plan = usePlan()

const assumption = computed(() =>
  plan.rig?.assumptions.find((a) => a.key === props.workings.assumption),
)

function reset() {
  plan.edit(phrase('shared.workings_origin.back_default', { workings: props.workings.name }), {
    op: 'remove',
    path: `/plan/overrides/${props.workings.assumption}`,
  })
}
</script>

<template>
  <section class="space-y-3">
    <dl class="grid grid-cols-[5.5rem_1fr] gap-x-2 gap-y-1.5 leading-snug">
      <dt class="text-soft">{{ phrase('shared.workings_origin.origin') }}</dt>
      <dd>{{ ORIGINS[workings.origin] }}</dd>
      <template v-if="workings.source && workings.origin !== 'typed'">
        <dt class="text-soft">{{ phrase('shared.workings_origin.source') }}</dt>
        <dd>{{ workings.source }}</dd>
      </template>
      <template v-if="workings.note">
        <dt class="text-soft">{{ phrase('shared.workings_origin.meaning') }}</dt>
        <dd>{{ workings.note }}</dd>
      </template>
      <template v-if="workings.range">
        <dt class="text-soft">{{ phrase('shared.workings_origin.other_values') }}</dt>
        <dd>{{ workings.range }}</dd>
      </template>
      <template v-for="s in workings.by_rule" :key="s.name">
        <dt class="text-soft" />
        <dd>
          {{ s.text }} <span class="text-soft">· {{ s.name }}</span>
        </dd>
      </template>
    </dl>
    <div v-if="assumption" class="rounded-lg border border-line p-3">
      <PlanField
        :path="`/plan/overrides/${assumption.key}`"
        :label="
          phrase('shared.workings_origin.own_value', {
            symbol: assumption.symbol.replace('_', ' '),
          })
        "
        :called="assumption.name"
        :fallback="assumption.field"
      />
      <button v-if="assumption.overridden" type="button" class="btn mt-2" @click="reset">
        {{ phrase('shared.workings_origin.back', { default: assumption.default }) }}
      </button>
    </div>
  </section>
</template>
