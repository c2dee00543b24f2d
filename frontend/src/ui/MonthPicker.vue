<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

/** The months in which the rig is used. */
const plan = usePlan()
const rig = computed(() => plan.document.rig)
const MONTHS = [
  phrase('shared.month_picker.jan'),
  phrase('shared.month_picker.feb'),
  phrase('shared.month_picker.mar'),
  phrase('shared.month_picker.apr'),
  phrase('shared.month_picker.may'),
  phrase('shared.month_picker.jun'),
  phrase('shared.month_picker.jul'),
  phrase('shared.month_picker.aug'),
  phrase('shared.month_picker.sep'),
  phrase('shared.month_picker.oct'),
  phrase('shared.month_picker.nov'),
  phrase('shared.month_picker.dec'),
]

function toggle(month: number) {
  const months = rig.value.months.includes(month)
    ? rig.value.months.filter((m) => m !== month)
    : [...rig.value.months, month].sort((a, b) => a - b)
  plan.edit(phrase('shared.month_picker.months_of_use'), {
    op: 'replace',
    path: '/rig/months',
    value: months,
  })
}
</script>

<template>
  <fieldset>
    <legend class="eyebrow mb-1">{{ phrase('shared.month_picker.months_use') }}</legend>
    <div class="grid grid-cols-6 gap-1 sm:grid-cols-12">
      <button
        v-for="(m, i) in MONTHS"
        :key="m"
        type="button"
        class="btn min-h-8 px-0 text-sm"
        :class="rig.months.includes(i + 1) ? 'btn-main' : ''"
        :aria-pressed="rig.months.includes(i + 1)"
        @click="toggle(i + 1)"
      >
        {{ m }}
      </button>
    </div>
  </fieldset>
</template>
