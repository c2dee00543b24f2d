<script setup lang="ts">
import { phrase } from '@/phrases/day'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'
import { Anchor, ChevronRight, CopyPlus } from '@lucide/vue'
import { DAY_KINDS, SEASONS, useDayTypes } from './useDayTypes'

const plan = usePlan()
const { types, view, here, at, chosen, copy, remove, planFor } = useDayTypes()

const WHO: Record<string, string> = {
  hook_up: phrase('day.day_types.mains'),
  laid_up: phrase('day.day_types.nobody'),
}
</script>

<template>
  <section :aria-label="phrase('day.day_types.kinds_day')">
    <div
      class="-mx-4 flex gap-2 overflow-x-auto px-4 pb-2"
      role="radiogroup"
      :aria-label="phrase('day.day_types.kind_day')"
    >
      <button
        v-for="(t, i) in types"
        :key="t.id"
        type="button"
        role="radio"
        class="sheet min-w-[9.2rem] shrink-0 px-3 py-2 text-left hover:bg-wash"
        :class="t.id === view.type ? 'shown' : ''"
        :aria-checked="t.id === view.type"
        :data-day-type="t.id"
        @click="plan.showDay(t.id)"
      >
        <span class="block max-w-[12rem] truncate font-semibold">{{ t.name }}</span>
        <span class="block text-lg leading-tight">{{ view.types[i]?.total.text }}</span>
        <span
          v-if="view.types[i]?.governs"
          class="flex items-center gap-1 text-sm font-semibold text-sea"
          :title="phrase('day.day_types.day_needs_battery_sizes')"
          ><Anchor :size="13" aria-hidden="true" /> {{ phrase('day.day_types.sizes_bank') }}</span
        >
        <span v-else class="block text-sm text-soft">{{ WHO[t.kind] ?? t.season }}</span>
      </button>
      <button
        type="button"
        class="btn shrink-0 self-center"
        :title="phrase('day.day_types.copy_new_kind_day', { name: here.name })"
        @click="copy"
      >
        <CopyPlus :size="16" aria-hidden="true" /> {{ phrase('day.day_types.copy_new_day') }}
      </button>
    </div>
    <Disclosure v-slot="{ open }">
      <div class="flex flex-wrap items-center gap-x-5 gap-y-1">
        <DisclosureButton class="flex items-center gap-1.5 py-1 text-left font-semibold">
          <ChevronRight
            :size="16"
            class="transition-transform"
            :class="open ? 'rotate-90' : ''"
            aria-hidden="true"
          />
          {{ phrase('day.day_types.details_day') }}
        </DisclosureButton>
        <p class="text-soft">
          {{ phrase('day.day_types.air') }}
          <FigureLink :figure="view.air" :name="phrase('day.day_types.outside_air')" />{{
            phrase('day.day_types.battery')
          }}
          <FigureLink
            :figure="view.battery"
            :name="phrase('day.day_types.battery_short')"
          /><template v-if="view.sun">; {{ view.sun }}</template
          >{{ phrase('day.day_types.charging', { charge: view.charge }) }}
        </p>
      </div>
      <DisclosurePanel class="sheet mt-2 grid gap-4 p-4 sm:grid-cols-2 lg:grid-cols-4">
        <PlanField :path="`${at}/name`" :label="phrase('day.day_types.name_day')" text />
        <PlanChoice
          :path="`${at}/kind`"
          :label="phrase('day.day_types.kind')"
          :value="here.kind"
          :options="DAY_KINDS"
        />
        <PlanChoice
          :path="`${at}/season`"
          :label="phrase('day.day_types.season')"
          :value="here.season"
          :options="SEASONS"
        />
        <PlanField
          :path="`${at}/air_c`"
          :label="phrase('day.day_types.outside_air')"
          :placeholder="view.air.text"
        />
        <PlanField
          :path="`${at}/battery_c`"
          :label="phrase('day.day_types.battery_temperature_day')"
          :placeholder="view.battery.text"
          :hint="phrase('day.day_types.leave_empty_estimate_place')"
        />
        <PlanField
          :path="`${at}/charge_from`"
          :label="phrase('day.day_types.first_charge_day')"
          :placeholder="view.charge.split(' to ')[0]"
          :hint="phrase('day.day_types.sun_engine_mains_when')"
        />
        <PlanField
          :path="`${at}/charge_to`"
          :label="phrase('day.day_types.last_charge_day')"
          :placeholder="view.charge.split(' to ')[1]"
        />
        <div class="flex flex-col items-start justify-end gap-2">
          <label class="flex cursor-pointer items-start gap-2 leading-snug">
            <input
              type="checkbox"
              class="mt-0.5 size-4.5 accent-sea"
              :checked="chosen"
              @change="planFor(($event.target as HTMLInputElement).checked)"
            />
            {{ phrase('day.day_types.plan_day_even_another') }}
          </label>
          <button v-if="types.length > 1" type="button" class="btn" @click="remove">
            {{ phrase('day.day_types.remove_day') }}
          </button>
        </div>
      </DisclosurePanel>
    </Disclosure>
  </section>
</template>

<style scoped>
.shown {
  border-color: var(--sea);
  box-shadow: inset 0 0 0 1px var(--sea);
}
</style>
