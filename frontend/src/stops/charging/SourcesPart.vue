<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/charging'
import { usePlan } from '@/stores/plan'
import PlanChoice from '@/ui/PlanChoice.vue'
import { computed } from 'vue'
import SourceCard from './SourceCard.vue'
import { useSources } from '@/stores/useSources'
import { SOURCE_KINDS } from '@/ui/sourceKinds'

const plan = usePlan()
const { sources, full, add } = useSources()
const rig = computed(() => plan.document.rig)
const PITCHES = choicesOf('rig.pitch', {
  open: phrase('charging.sources_part.open'),
  half: phrase('charging.sources_part.half_shade'),
  trees: phrase('charging.sources_part.under_trees'),
})
const WARNINGS = choicesOf('rig.watched', {
  '': phrase('charging.sources_part.voltmeter_nothing'),
  monitor: phrase('charging.sources_part.alarm_battery_monitor'),
})
const DISCONNECTS = choicesOf('rig.disconnect', {
  all: phrase('charging.sources_part.disconnects_loads'),
  not_critical: phrase('charging.sources_part.keeps_critical_loads'),
  none: phrase('charging.sources_part.fitted'),
})
</script>

<template>
  <p class="mb-4 max-w-3xl text-pretty text-soft">
    {{
      phrase('charging.sources_part.everything_charges_house_bank', {
        volts: plan.document.rig.system_v as number,
      })
    }}
  </p>
  <div class="grid items-start gap-4 lg:grid-cols-2">
    <SourceCard v-for="s in sources" :key="s.id" :view="s" />
    <section v-if="!sources.length" class="sheet p-5 lg:col-span-2">
      <h2 class="text-xl">{{ phrase('charging.sources_part.charges_bank') }}</h2>
      <p class="mt-1 max-w-2xl text-pretty text-soft">
        {{ phrase('charging.sources_part.add_charger_panels_engine') }}
      </p>
    </section>
  </div>
  <div class="mt-4 flex flex-wrap items-center gap-2">
    <span class="text-soft">{{ phrase('charging.sources_part.add') }}</span>
    <button
      v-for="(k, i) in SOURCE_KINDS"
      :key="k.key"
      type="button"
      class="btn"
      :disabled="full"
      :data-new="i === 0 ? '' : undefined"
      :data-add="k.key"
      @click="add(k)"
    >
      <component :is="k.icon" :size="16" aria-hidden="true" /> {{ k.name }}
    </button>
    <span v-if="full" class="text-soft">{{
      phrase('charging.sources_part.up_twelve_sources')
    }}</span>
  </div>
  <section class="mt-8 grid max-w-3xl gap-4 sm:grid-cols-2">
    <PlanChoice
      path="/rig/pitch"
      :label="phrase('charging.sources_part.usual_place')"
      :called="phrase('charging.sources_part.usual_place_short')"
      :value="rig.pitch as string"
      :options="PITCHES"
    />
    <PlanChoice
      path="/rig/disconnect"
      :label="phrase('charging.sources_part.low_voltage_disconnect')"
      :called="phrase('charging.sources_part.load_disconnect')"
      :value="rig.disconnect as string"
      :options="DISCONNECTS"
    />
    <PlanChoice
      path="/rig/watched"
      :label="phrase('charging.sources_part.warning_before_empty')"
      :called="phrase('charging.sources_part.warning')"
      :value="rig.watched as string"
      :options="WARNINGS"
    />
  </section>
</template>
