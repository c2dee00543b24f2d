<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import FoldedFields from '@/ui/FoldedFields.vue'
import FigureLink from '@/ui/FigureLink.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const reference = useReference()
const rig = computed(() => plan.document.rig)
const climate = computed(() => rig.value.climate as string | null)
const regions = computed(() => [
  { value: '', name: phrase('rig.site_part.own_coordinates_known') },
  ...(reference.data?.regions ?? []).map((r) => ({ value: r.key, name: r.name })),
])
const climates = computed(() => [
  { value: null, name: phrase('rig.site_part.known') },
  ...(reference.data?.climates ?? []).map((c) => ({ value: c.key, name: `${c.name}: ${c.why}` })),
])
const SEASONS: Record<string, string> = {
  spring: phrase('rig.site_part.spring'),
  summer: phrase('rig.site_part.summer'),
  autumn: phrase('rig.site_part.autumn'),
  winter: phrase('rig.site_part.winter'),
}
const PLACES = choicesOf('rig.place', {
  living_space: phrase('rig.site_part.living_space'),
  inside_locker: phrase('rig.site_part.inside_locker'),
  outside_box: phrase('rig.site_part.outside_box_shed'),
  engine_room: phrase('rig.site_part.engine_room'),
})
</script>

<template>
  <section class="sheet grid grid-cols-2 gap-4 p-5">
    <h2 class="col-span-2 text-xl">{{ phrase('rig.site_part.where_where_battery_installed') }}</h2>
    <PlanChoice
      path="/rig/region"
      :label="phrase('rig.site_part.region')"
      :value="rig.region as string"
      :options="regions"
      :also="reference.withRegion"
      class="col-span-2 sm:col-span-1"
    />
    <PlanChoice
      path="/rig/climate"
      :label="phrase('rig.site_part.climate')"
      :value="climate"
      :options="climates"
      class="col-span-2 sm:col-span-1"
    />
    <PlanChoice
      path="/rig/place"
      :label="phrase('rig.site_part.the_battery_is_in')"
      :called="phrase('rig.site_part.place_battery')"
      :value="rig.place as string"
      :options="PLACES"
      class="col-span-2 sm:col-span-1"
    />
    <div class="col-span-2 self-end sm:col-span-1" data-seasons>
      <p class="flex justify-between gap-2">
        <span v-for="(f, season) in plan.rig!.seasons" :key="season" class="text-center">
          <span class="block text-sm text-soft">{{ SEASONS[season] }}</span>
          <FigureLink :figure="f" :name="phrase('rig.site_part.battery', { season })" />
        </span>
      </p>
    </div>
    <p class="col-span-2 -mt-1 text-sm text-soft">
      {{ phrase('rig.site_part.estimated_battery_temperature_place') }}
    </p>
    <FoldedFields
      class="col-span-2 border-t border-line pt-2"
      :title="phrase('rig.site_part.own_place')"
      :filled="
        rig.battery_c !== null || rig.rest_c !== null || (rig.latitude !== null && !rig.region)
      "
    >
      <div class="grid grid-cols-2 gap-4">
        <PlanField
          path="/rig/latitude"
          :label="phrase('rig.site_part.latitude')"
          placeholder="52.2 N"
        />
        <PlanField
          path="/rig/longitude"
          :label="phrase('rig.site_part.longitude')"
          placeholder="5.3 E"
        />
        <PlanField
          path="/rig/battery_c"
          :label="phrase('rig.site_part.battery_temperature_use')"
          :placeholder="plan.rig!.day.battery.text"
          :hint="phrase('rig.site_part.temperature_battery_air')"
        />
        <PlanField
          path="/rig/rest_c"
          :label="phrase('rig.site_part.battery_temperature_outside_season')"
          :placeholder="phrase('rig.site_part.estimated')"
          :hint="phrase('rig.site_part.above_25_c_77')"
        />
      </div>
    </FoldedFields>
  </section>
</template>
