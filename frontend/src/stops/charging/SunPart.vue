<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import type { Schemas } from '@/api/client'
import '@/charts/bars'
import ChartFrame from '@/charts/ChartFrame.vue'
import { tip } from '@/charts/tip'
import { useLook } from '@/charts/useLook'
import { usePlan } from '@/stores/plan'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const props = defineProps<{ view: Schemas['ChargingView'] }>()
const plan = usePlan()
const { look } = useLook()
const months = computed(() => props.view.sun)
const own = computed(() => plan.document.rig.sun_hours.length === 12)

const option = computed(() => ({
  animation: false,
  grid: { left: 44, right: 10, top: 22, bottom: 28 },
  tooltip: {
    ...look.value.tooltip,
    trigger: 'axis',
    formatter: (items: { dataIndex: number }[]) => {
      const m = months.value[items[0]!.dataIndex]!
      return tip([
        m.name,
        `${m.text} kWh`,
        phrase('charging.sun_part.per_kwp', {
          used: m.used ? '' : phrase('charging.sun_part.use'),
        }),
      ])
    },
  },
  xAxis: {
    ...look.value.axis,
    type: 'category',
    data: months.value.map((m) => m.name.slice(0, 3)),
    axisLabel: { ...look.value.text, interval: 0, hideOverlap: true },
  },
  yAxis: { ...look.value.axis, type: 'value', min: 0, minInterval: 1 },
  series: [
    {
      type: 'bar',
      barCategoryGap: '28%',
      label: {
        show: true,
        position: 'top',
        ...look.value.text,
        fontSize: 12,
        formatter: (p: { dataIndex: number }) => months.value[p.dataIndex]!.text,
      },
      data: months.value.map((m) => ({
        value: +m.text,
        itemStyle: m.used
          ? { color: look.value.sea }
          : { color: look.value.line, borderColor: look.value.soft, borderType: 'dashed' },
      })),
    },
  ],
}))

/** Own hours begin with those that the climate gives, to be corrected month by month. */
function take(on: boolean) {
  plan.edit(
    on ? phrase('charging.sun_part.own_sun_hours') : phrase('charging.sun_part.sun_climate'),
    {
      op: 'replace',
      path: '/rig/sun_hours',
      value: on ? months.value.map((m) => +m.text) : [],
    },
  )
}
</script>

<template>
  <section>
    <h2 class="text-xl">{{ phrase('charging.sun_part.sun_place') }}</h2>
    <p v-if="!months.length" class="text-soft">{{ view.sun_says }}</p>
    <template v-else>
      <div class="grid gap-6 lg:grid-cols-[1fr_22rem]">
        <ChartFrame
          :title="phrase('charging.sun_part.kwh_per_kwp_panels')"
          :option="option"
          :height="210"
          :head="[phrase('charging.sun_part.month'), phrase('charging.sun_part.kwh_per_kwp')]"
          :rows="months.map((m) => [m.name, m.text])"
        >
          <p class="text-sm text-soft">
            {{
              phrase('charging.sun_part.dashed_months_without_use', {
                sun_own: view.sun_own
                  ? phrase('charging.sun_part.your_own_sun_hours')
                  : phrase('charging.sun_part.clear_sky_place_times'),
              })
            }}
          </p>
        </ChartFrame>
        <div>
          <label class="flex items-start gap-2 font-semibold">
            <input
              type="checkbox"
              class="mt-1 size-4 accent-sea"
              :checked="own"
              data-own-sun
              @change="take(($event.target as HTMLInputElement).checked)"
            />
            {{ phrase('charging.sun_part.i_know_sun_hours') }}
          </label>
          <p class="mt-1 text-sm text-soft">
            {{ phrase('charging.sun_part.record_map_average_day') }}
          </p>
          <div v-if="own" class="mt-2 grid grid-cols-3 gap-2">
            <PlanField
              v-for="(m, i) in months"
              :key="m.name"
              :path="`/rig/sun_hours/${i}`"
              :label="m.name.slice(0, 3)"
              unit="h"
              :called="phrase('charging.sun_part.sun_name', { name: m.name })"
            />
          </div>
        </div>
      </div>
      <p v-if="view.sun_says" class="mt-1 text-caution">{{ view.sun_says }}</p>
    </template>
  </section>
</template>
