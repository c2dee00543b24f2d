<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import ToolField from '@/ui/ToolField.vue'
import { Plus } from '@lucide/vue'
import { computed, ref } from 'vue'
import { useAsked } from '@/stores/useAsked'
import { useBanks } from '@/stores/useBanks'

const plan = usePlan()
const { full, addFound } = useBanks()
const money = ref(plan.rig!.fields['/rig/budget'] ?? '')
const kg = ref('')
const space = ref(true)
const { answer, problems } = useAsked<Schemas['FindView']>(
  () => `${money.value}|${kg.value}|${space.value}`,
  (signal) =>
    api.GET('/api/rigs/{rig_id}/find', {
      signal,
      params: {
        path: { rig_id: plan.rig!.id },
        query: { money: money.value, kg: kg.value, space: space.value },
      },
    }),
)
const problem = (path: string) => problems.value.find((p) => p.path === path)?.message ?? ''
const locker = computed(() => plan.document.rig.locker_length !== null)
</script>

<template>
  <section>
    <h2 class="text-xl">{{ phrase('banks.ceiling_part.best_within_limit') }}</h2>
    <p class="text-pretty text-soft">
      {{ phrase('banks.ceiling_part.instead_need_get_given') }}
    </p>
    <div class="mt-3 grid grid-cols-2 gap-3">
      <ToolField
        v-model="money"
        :label="phrase('banks.ceiling_part.at_most')"
        :unit="plan.rig!.units.money"
        :problem="problem('/money')"
        data="money"
        help="limit/money"
      />
      <ToolField
        v-model="kg"
        :label="phrase('banks.ceiling_part.at_most')"
        :unit="plan.rig!.units.kg"
        :problem="problem('/kg')"
        data="kg"
        help="limit/kg"
      />
      <label v-if="locker" class="col-span-2 flex items-center gap-2">
        <input v-model="space" type="checkbox" class="size-4.5 accent-sea" />
        {{ phrase('banks.ceiling_part.must_fit_locker') }}
      </label>
    </div>
    <ol v-if="answer?.ceiling" class="mt-3 divide-y divide-line" data-within>
      <li v-for="w in answer.within" :key="w.found.battery_class" class="flex gap-3 py-2.5">
        <ChemistryMark :battery-class="w.found.battery_class" class="mt-0.5 self-start" />
        <p class="min-w-0 grow leading-snug">
          <span class="font-semibold">{{ w.found.title }}</span>
          <span class="text-soft"> · {{ w.found.layout }}</span>
          <span class="block"
            >{{
              phrase('banks.ceiling_part.usable_need', {
                usable: w.found.usable,
                covered: w.covered,
              })
            }}
            <b>{{ w.found.nights }}</b>
            {{
              phrase('banks.ceiling_part.without_reserve', {
                purchase: w.found.purchase,
                kg: w.found.kg,
              })
            }}</span
          >
          <span class="block text-sm text-soft">{{ w.later }}</span>
          <span v-for="a in w.against" :key="a" class="block text-sm text-caution">{{
            phrase('banks.ceiling_part.but_it', { a })
          }}</span>
        </p>
        <button
          type="button"
          class="btn shrink-0 self-start"
          :disabled="full"
          :aria-label="
            phrase('banks.ceiling_part.add', { title: w.found.title, layout: w.found.layout })
          "
          @click="addFound(w.found)"
        >
          <Plus :size="15" aria-hidden="true" /> {{ phrase('banks.ceiling_part.add_short') }}
        </button>
      </li>
      <li v-if="!answer.within.length" class="py-2.5 text-soft">
        {{ phrase('banks.ceiling_part.nothing_within_limit_supply') }}
      </li>
    </ol>
  </section>
</template>
