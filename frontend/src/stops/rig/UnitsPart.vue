<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

/** Units, currency and notes. */
const plan = usePlan()
const reference = useReference()
const rig = computed(() => plan.document.rig)
const regionOf = new Intl.DisplayNames(['en'], { type: 'region' })
/** Each way of writing numbers by an example, and where it is usual. */
const NUMBERS = computed(() => [
  { value: '', name: phrase('rig.units_part.no_region') },
  ...(reference.data?.numbers ?? []).map((locale) => ({
    value: locale,
    name: `${new Intl.NumberFormat(locale).format(1918.5)} (${regionOf.of(locale.split('-')[1]!)})`,
  })),
])
</script>

<template>
  <section class="sheet grid gap-4 p-5 sm:grid-cols-2">
    <h2 class="text-xl sm:col-span-2">{{ phrase('rig.units_part.units_currency') }}</h2>
    <PlanField
      path="/rig/currency"
      :label="phrase('rig.units_part.currency')"
      text
      :hint="phrase('rig.units_part.three_letters_such_eur')"
    />
    <PlanChoice
      path="/rig/units"
      :label="phrase('rig.units_part.units')"
      :value="rig.units as string"
      :options="
        choicesOf('rig.units', {
          metric: phrase('rig.units_part.metric_kg_c_mm'),
          us: phrase('rig.units_part.us_lb_f_in'),
        })
      "
    />
    <PlanChoice
      path="/rig/numbers"
      :label="phrase('rig.units_part.numbers')"
      :value="rig.numbers as string"
      :options="NUMBERS"
    />
    <PlanChoice
      path="/rig/lead"
      :label="phrase('rig.units_part.show_use')"
      :value="rig.lead as string"
      :options="
        choicesOf('rig.lead', {
          wh: phrase('rig.units_part.watt_hours'),
          ah: phrase('rig.units_part.amp_hours_v', { system_v: rig.system_v }),
        })
      "
      class="sm:col-span-2"
    />
    <PlanField
      path="/rig/notes"
      :label="phrase('rig.units_part.notes')"
      text
      :rows="5"
      class="sm:col-span-2"
    />
  </section>
</template>
