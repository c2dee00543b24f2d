<script setup lang="ts">
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import { computed } from 'vue'

const plan = usePlan()
const reference = useReference()
const sized = computed(() => new Map(plan.rig!.need.rules.map((r) => [r.key, r])))
const classes = computed(() => plan.rig!.need.classes.map((c) => c.battery_class))
const chosen = computed({
  get: () => plan.document.plan.house_rule,
  set: (value: string) =>
    plan.edit('house rule', { op: 'replace', path: '/plan/house_rule', value }),
})
</script>

<template>
  <RadioGroup
    v-model="chosen"
    class="grid gap-3 md:grid-cols-3"
    :aria-label="phrase('need.house_rules.house_rule')"
  >
    <RadioGroupOption
      v-for="rule in reference.data?.rules"
      :key="rule.key"
      v-slot="{ checked }"
      :value="rule.key"
      as="template"
    >
      <div
        class="sheet cursor-pointer px-4 py-3 hover:bg-wash"
        :style="
          checked ? { borderColor: 'var(--sea)', boxShadow: 'inset 0 0 0 1px var(--sea)' } : {}
        "
        :data-rule="rule.key"
      >
        <p class="flex items-center gap-2 font-semibold">
          <span
            class="grid size-4 place-items-center rounded-full border-2"
            :class="checked ? 'border-sea' : 'border-edge'"
          >
            <span v-if="checked" class="size-2 rounded-full bg-sea" />
          </span>
          {{ rule.name }}
        </p>
        <p class="mt-1 leading-snug text-soft" :class="checked ? '' : 'max-md:hidden'">
          {{ rule.argues }}
        </p>
        <p class="mt-1 text-sm text-soft" :class="checked ? '' : 'max-md:hidden'">
          {{ phrase('need.house_rules.life', { life_basis: rule.life_basis }) }}
        </p>
        <p v-if="sized.get(rule.key)" class="mt-2 border-t border-line pt-2 leading-snug">
          <b>{{ sized.get(rule.key)!.need }}</b> {{ phrase('need.house_rules.needed') }}
          <span class="mt-1 flex flex-wrap gap-x-3 gap-y-1 text-sm">
            <span
              v-for="(l, i) in sized.get(rule.key)!.labels"
              :key="i"
              class="inline-flex items-center gap-1"
              ><ChemistryMark :battery-class="classes[i]!" /> {{ l }}</span
            >
          </span>
        </p>
      </div>
    </RadioGroupOption>
  </RadioGroup>
</template>
