<script setup lang="ts">
import { phrase } from '@/phrases/day'
import { api } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useUi } from '@/stores/ui'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'
import LoadCould from './LoadCould.vue'
import type { Load } from '@/api/rigFile'

const props = defineProps<{ load: Load; index: number; problemsAt: string }>()
const plan = usePlan()
const reference = useReference()
const ui = useUi()
const at = computed(() => `/day/loads/${props.index}`)
const called = (what: string) => `${props.load.name}: ${what}`
const follows = computed(() => props.load.duty_at.length > 0)
const degrees = computed(() =>
  plan.document.rig.units === 'us'
    ? ['32 °F', '59 °F', '77 °F', '104 °F']
    : ['0 °C', '15 °C', '25 °C', '40 °C'],
)

function follow(on: boolean) {
  const duty = (plan.document.day.loads[props.index] as { duty?: number }).duty ?? 1
  plan.edit(called(phrase('day.load_details.edit_weather')), {
    op: 'replace',
    path: `${at.value}/duty_at`,
    value: on ? [duty, duty, duty, duty] : [],
  })
}

async function keep() {
  const { error } = await api.POST('/api/appliances', { body: { load: { ...props.load } } })
  if (error) return
  await reference.loadOwn()
  ui.say(phrase('day.load_details.own_list_now', { load: props.load.name }))
}
</script>

<template>
  <tr class="details" :data-details="load.id">
    <td colspan="5">
      <div class="grid gap-x-6 gap-y-4 rounded-md bg-well p-4 md:grid-cols-3">
        <div class="grid grid-cols-2 content-start gap-3">
          <p class="col-span-2 text-sm font-semibold">
            {{ phrase('day.load_details.how_certain_power') }}
          </p>
          <PlanField
            :path="`${at}/low`"
            :label="phrase('day.load_details.least')"
            :placeholder="phrase('day.load_details.same')"
            :called="called(phrase('day.load_details.lowest_power'))"
          />
          <PlanField
            :path="`${at}/high`"
            :label="phrase('day.load_details.at_most')"
            :placeholder="phrase('day.load_details.same')"
            :called="called(phrase('day.load_details.highest_power'))"
          />
          <PlanField
            :path="`${at}/measured_wh`"
            :label="phrase('day.load_details.measured')"
            :placeholder="phrase('day.load_details.yet')"
            :called="called(phrase('day.load_details.edit_measured'))"
          />
          <PlanField
            :path="`${at}/measured_hours`"
            :label="phrase('day.load_details.over')"
            :called="called(phrase('day.load_details.hours_measured'))"
          />
          <p class="col-span-2 text-sm text-soft">
            {{ phrase('day.load_details.measurement_over_hours_switched') }}
          </p>
        </div>
        <div class="grid grid-cols-2 content-start gap-3">
          <p class="col-span-2 text-sm font-semibold">
            {{ phrase('day.load_details.bank_must_supply') }}
          </p>
          <PlanField
            :path="`${at}/start_w`"
            :label="phrase('day.load_details.starting_power')"
            unit="W"
            :placeholder="phrase('day.load_details.running')"
            :called="called(phrase('day.load_details.edit_start'))"
            :hint="phrase('day.load_details.n3x_three_times_power')"
          />
          <PlanField
            :path="`${at}/start_s`"
            :label="phrase('day.load_details.for')"
            :called="called(phrase('day.load_details.seconds_start'))"
          />
          <PlanField
            :path="`${at}/least_v`"
            :label="phrase('day.load_details.needs_least')"
            :placeholder="phrase('day.load_details.voltage')"
            :called="called(phrase('day.load_details.lowest_voltage'))"
            :hint="phrase('day.load_details.n12_v_bank')"
            class="col-span-2"
          />
          <PlanCheck
            :path="`${at}/together`"
            :label="phrase('day.load_details.run_together_other_large')"
            :value="load.together"
            :called="called(phrase('day.load_details.edit_together'))"
            class="col-span-2"
          />
          <PlanCheck
            :path="`${at}/critical`"
            :label="phrase('day.load_details.critical_dangerous_without')"
            :value="load.critical"
            :called="called(phrase('day.load_details.edit_critical'))"
            class="col-span-2"
          />
          <PlanChoice
            v-if="plan.document.second_bank && load.supply === 'dc'"
            :path="`${at}/bank`"
            :label="phrase('day.load_details.supplied')"
            :value="load.bank"
            :called="called(phrase('day.load_details.edit_bank'))"
            :options="[
              { value: 'main', name: phrase('day.load_details.main_bank') },
              { value: 'second', name: String(plan.document.second_bank.name) },
            ]"
            class="col-span-2"
          />
        </div>
        <div class="grid grid-cols-4 content-start gap-2">
          <label class="col-span-4 flex cursor-pointer items-start gap-2 text-sm font-semibold">
            <input
              type="checkbox"
              class="mt-0.5 size-4 accent-sea"
              :checked="follows"
              @change="follow(($event.target as HTMLInputElement).checked)"
            />
            {{ phrase('day.load_details.duty_cycle_depends_weather') }}
          </label>
          <template v-if="follows">
            <PlanField
              v-for="(d, i) in degrees"
              :key="d"
              :path="`${at}/duty_at/${i}`"
              :label="d"
              :called="called(phrase('day.load_details.duty', { d }))"
            />
            <p class="col-span-4 text-sm text-soft">
              {{ phrase('day.load_details.duty_outside_air_0') }}
            </p>
          </template>
          <p v-else class="col-span-4 text-sm text-soft">
            {{ phrase('day.load_details.fridge_works_harder_heat') }}
          </p>
          <LoadCould class="col-span-4 mt-2" :load="load" :at="at" :called="called" />
          <button type="button" class="btn col-span-4 mt-1 justify-self-start" @click="keep">
            {{ phrase('day.load_details.keep_my_own_list') }}
          </button>
        </div>
      </div>
    </td>
  </tr>
</template>
