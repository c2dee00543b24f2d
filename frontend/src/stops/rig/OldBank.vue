<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import FoldedFields from '@/ui/FoldedFields.vue'
import FigureLink from '@/ui/FigureLink.vue'
import FindingList from '@/ui/FindingList.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

const plan = usePlan()
const reference = useReference()
const old = computed(() => plan.document.old_bank)
const figures = computed(() => plan.rig!.banks.old)
const TEST = ['test_current', 'test_temperature', 'old_bank_serves']
const findings = computed(() => plan.rig!.findings.filter((f) => TEST.includes(f.code)))
const classes = computed(
  () => reference.data?.classes.map((c) => ({ value: c.key, name: c.name })) ?? [],
)

function enter() {
  plan.edit(phrase('rig.old_bank.enter_the_old_bank'), { op: 'add', path: '/old_bank', value: {} })
}

function clear() {
  plan.edit(
    phrase('rig.old_bank.remove_old_bank'),
    { op: 'replace', path: '/old_bank', value: null },
    // That there is none is an answer, too.
    { op: 'replace', path: '/stated/old_bank', value: true },
  )
}
</script>

<template>
  <section class="sheet p-5">
    <h2 class="text-xl">{{ phrase('rig.old_bank.bank_now') }}</h2>
    <div v-if="old" class="mt-3 grid grid-cols-2 gap-4">
      <PlanChoice
        path="/old_bank/battery_class"
        :label="phrase('rig.old_bank.class')"
        :called="phrase('rig.old_bank.class_old_bank')"
        :value="old.battery_class as string"
        :options="classes"
        :also="(v) => reference.withClass('/old_bank', old!.battery_class, v)"
        class="col-span-2"
      />
      <PlanField path="/old_bank/unit_v" :label="phrase('rig.old_bank.voltage_battery')" />
      <PlanField path="/old_bank/unit_ah" :label="phrase('rig.old_bank.rated_capacity_battery')" />
      <PlanField path="/old_bank/series" :label="phrase('rig.old_bank.batteries_series')" />
      <PlanField path="/old_bank/parallel" :label="phrase('rig.old_bank.strings_parallel')" />
      <PlanField
        path="/old_bank/age_years"
        :label="phrase('rig.old_bank.age')"
        :placeholder="phrase('rig.old_bank.known')"
      />
      <PlanField
        path="/old_bank/reason"
        :label="phrase('rig.old_bank.why_want_replace')"
        text
        :rows="2"
        class="col-span-2"
      />
      <FoldedFields
        class="col-span-2"
        :title="phrase('rig.old_bank.more')"
        :filled="old.unit_kg !== null || old.sale_price !== null"
      >
        <div class="grid grid-cols-2 gap-4">
          <PlanField
            path="/old_bank/unit_kg"
            :label="phrase('rig.old_bank.weight_battery')"
            :placeholder="phrase('rig.old_bank.estimated')"
          />
          <PlanField
            path="/old_bank/sale_price"
            :label="phrase('rig.old_bank.price_someone_pays')"
            :placeholder="phrase('rig.old_bank.scrap_value')"
          />
        </div>
      </FoldedFields>
      <p v-if="figures.length" class="col-span-2 text-soft">
        {{ phrase('rig.old_bank.rated_energy_weight') }}
        <FigureLink
          :figure="figures[0]!"
          :name="phrase('rig.old_bank.energy')"
          class="font-semibold text-ink"
        />;
        <FigureLink
          :figure="figures[1]!"
          :name="phrase('rig.old_bank.weight')"
          class="font-semibold text-ink"
        />
        {{ phrase('rig.old_bank.lift_out') }}
      </p>
      <div class="col-span-2 grid grid-cols-3 gap-3 border-t border-line pt-4">
        <div class="col-span-3">
          <h3 class="font-sans font-semibold">{{ phrase('rig.old_bank.capacity_test') }}</h3>
          <p class="text-sm text-pretty text-soft">
            {{ phrase('rig.old_bank.charge_fully_let_rest') }}
          </p>
        </div>
        <PlanField path="/old_bank/test_a" :label="phrase('rig.old_bank.current')" />
        <PlanField path="/old_bank/test_minutes" :label="phrase('rig.old_bank.time')" />
        <PlanField
          path="/old_bank/test_c"
          :label="phrase('rig.old_bank.battery')"
          :placeholder="plan.document.rig.units === 'us' ? '68' : '20'"
        />
        <FindingList :findings="findings" class="col-span-3" />
      </div>
      <button type="button" class="btn col-span-2 justify-self-start" @click="clear">
        {{ phrase('rig.old_bank.none') }}
      </button>
    </div>
    <template v-else>
      <p class="mt-1 text-soft">
        {{ phrase('rig.old_bank.enter_see_change_weight') }}
      </p>
      <button type="button" class="btn mt-3" @click="enter">
        {{ phrase('rig.old_bank.enter_old_bank') }}
      </button>
    </template>
  </section>
</template>
