<script setup lang="ts">
import { api } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useUi } from '@/stores/ui'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'
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
  plan.edit(called('weather'), {
    op: 'replace',
    path: `${at.value}/duty_at`,
    value: on ? [duty, duty, duty, duty] : [],
  })
}

async function keep() {
  const { error } = await api.POST('/api/appliances', { body: { load: { ...props.load } } })
  if (error) return
  await reference.loadOwn()
  ui.say(`${props.load.name} is in your own list now.`)
}
</script>

<template>
  <tr class="details" :data-details="load.id">
    <td colspan="11">
      <div class="grid gap-x-6 gap-y-4 rounded-md bg-well p-4 md:grid-cols-3">
        <div class="grid grid-cols-2 content-start gap-3">
          <p class="col-span-2 text-sm font-semibold">How sure is the draw?</p>
          <PlanField
            :path="`${at}/low`"
            label="At least"
            placeholder="no doubt"
            :called="called('least draw')"
          />
          <PlanField
            :path="`${at}/high`"
            label="At most"
            placeholder="no doubt"
            :called="called('most draw')"
          />
          <PlanField
            :path="`${at}/measured_wh`"
            label="Measured"
            unit="Wh"
            placeholder="not yet"
            :called="called('measured')"
          />
          <PlanField
            :path="`${at}/measured_hours`"
            label="over"
            unit="h"
            :called="called('hours measured')"
          />
          <p class="col-span-2 text-sm text-soft">
            A measurement of all of them, over the hours they were switched on, replaces the
            estimate.
          </p>
        </div>
        <div class="grid grid-cols-2 content-start gap-3">
          <p class="col-span-2 text-sm font-semibold">What it asks of the bank</p>
          <PlanField
            :path="`${at}/start_w`"
            label="Starts at"
            unit="W"
            placeholder="as it runs"
            :called="called('start')"
            hint="Or 3x: three times its draw."
          />
          <PlanField
            :path="`${at}/start_s`"
            label="for"
            unit="s"
            :called="called('seconds of start')"
          />
          <PlanField
            :path="`${at}/least_v`"
            label="Minds volts below"
            unit="V"
            placeholder="does not"
            :called="called('least volts')"
            hint="Of a 12 V bank."
            class="col-span-2"
          />
          <PlanCheck
            :path="`${at}/together`"
            label="May run together with others"
            :value="load.together"
            :called="called('together')"
            class="col-span-2"
          />
          <PlanCheck
            :path="`${at}/critical`"
            label="Critical: danger without it"
            :value="load.critical"
            :called="called('critical')"
            class="col-span-2"
          />
          <PlanChoice
            v-if="plan.document.second_bank && load.supply === 'dc'"
            :path="`${at}/bank`"
            label="Hangs on"
            :value="load.bank"
            :called="called('bank')"
            :options="[
              { value: 'main', name: 'the main bank' },
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
            Its duty follows the weather
          </label>
          <template v-if="follows">
            <PlanField
              v-for="(d, i) in degrees"
              :key="d"
              :path="`${at}/duty_at/${i}`"
              :label="d"
              :called="called(`duty at ${d}`)"
            />
            <p class="col-span-4 text-sm text-soft">Duty at that outside air, 0 to 1.</p>
          </template>
          <p v-else class="col-span-4 text-sm text-soft">
            A fridge works harder in the heat, a heater in the cold.
          </p>
          <button type="button" class="btn col-span-4 mt-1 justify-self-start" @click="keep">
            Keep in my own list
          </button>
        </div>
      </div>
    </td>
  </tr>
</template>
