<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import PictureTile from '@/ui/PictureTile.vue'
import PlanField from '@/ui/PlanField.vue'
import { computed } from 'vue'

/** The bank that is there now, and why it is to go. */
const plan = usePlan()
const reference = useReference()
const old = computed(() => plan.document.old_bank)
const REASONS = [
  { key: 'short', says: phrase('questions.old.short') },
  { key: 'age', says: phrase('questions.old.aged') },
  { key: 'bulges', says: phrase('questions.old.bulges'), sign: 'bulges' },
  { key: 'smells', says: phrase('questions.old.smells'), sign: 'smells' },
  { key: 'weight', says: phrase('questions.old.weight') },
  { key: 'more', says: phrase('questions.old.more') },
]
const parts = computed(() =>
  ((old.value?.reason as string | undefined) ?? '').split('; ').filter(Boolean),
)

function choose(key: string) {
  const now = old.value
  plan.edit(
    phrase('questions.old.bank'),
    ...(now
      ? [
          ...reference.withClass('/old_bank', now.battery_class, key),
          { op: 'replace' as const, path: '/old_bank/battery_class', value: key },
        ]
      : [{ op: 'add' as const, path: '/old_bank', value: { battery_class: key } }]),
  )
}

function toggle(reason: (typeof REASONS)[number]) {
  const on = !parts.value.includes(reason.says)
  const value = on ? [...parts.value, reason.says] : parts.value.filter((p) => p !== reason.says)
  plan.edit(
    phrase('questions.old.reason'),
    { op: 'replace', path: '/old_bank/reason', value: value.join('; ') },
    ...(reason.sign
      ? [{ op: 'replace' as const, path: `/old_bank/${reason.sign}`, value: on }]
      : []),
  )
}
</script>

<template>
  <div
    class="grid grid-cols-1 gap-3 sm:grid-cols-2 lg:grid-cols-3"
    role="group"
    :aria-label="phrase('questions.old.class')"
  >
    <PictureTile
      v-for="c in reference.data?.classes"
      :key="c.key"
      :name="c.name"
      :chosen="old?.battery_class === c.key"
      :data-tile="c.key"
      @click="choose(c.key)"
      ><ChemistryMark :battery-class="c.key"
    /></PictureTile>
  </div>
  <template v-if="old">
    <div class="mt-5 grid grid-cols-2 gap-4 sm:grid-cols-4">
      <PlanField path="/old_bank/unit_ah" :label="phrase('questions.old.ah')" />
      <PlanField path="/old_bank/parallel" :label="phrase('questions.old.parallel')" />
      <PlanField path="/old_bank/unit_v" :label="phrase('questions.old.volts')" />
      <PlanField path="/old_bank/age_years" :label="phrase('questions.old.age')" />
    </div>
    <fieldset class="mt-5">
      <legend class="eyebrow mb-2">{{ phrase('questions.old.why') }}</legend>
      <div class="flex flex-wrap gap-2">
        <button
          v-for="r in REASONS"
          :key="r.key"
          type="button"
          class="btn whitespace-normal"
          :class="parts.includes(r.says) ? 'btn-main' : ''"
          :aria-pressed="parts.includes(r.says)"
          :data-reason="r.key"
          @click="toggle(r)"
        >
          {{ r.says }}
        </button>
      </div>
    </fieldset>
    <p class="mt-4 max-w-2xl text-pretty text-soft">{{ phrase('questions.old.test') }}</p>
  </template>
</template>
