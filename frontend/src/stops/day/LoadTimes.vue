<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/day'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import type { Times } from '@/api/rigFile'

const props = defineProps<{ at: string; name: string; times: Times; problemsAt: string }>()
const called = (what: string) => `${props.name}: ${what}`
const WAYS = choicesOf('day.loads.use', {
  hours: phrase('day.load_times.hours'),
  uses: phrase('day.load_times.uses'),
  times: phrase('day.load_times.times'),
  standby: phrase('day.load_times.day'),
})
</script>

<template>
  <div class="flex items-start gap-1.5">
    <PlanChoice
      class="w-[5.6rem] shrink-0"
      :path="`${at}/use`"
      :label="phrase('day.load_times.kind_use', { name })"
      bare
      :value="times.use"
      :called="called(phrase('day.load_times.edit_use'))"
      :options="WAYS"
    />
    <PlanField
      v-if="times.use === 'hours'"
      class="grow"
      :path="`${at}/hours`"
      :label="phrase('day.load_times.hours_day', { name })"
      bare
      :called="called(phrase('day.load_times.edit_hours'))"
      :problems-at="problemsAt"
    />
    <template v-else-if="times.use === 'uses'">
      <PlanField
        class="w-12 shrink-0"
        :path="`${at}/uses`"
        :label="phrase('day.load_times.uses_day', { name })"
        bare
        :called="called(phrase('day.load_times.edit_uses'))"
        :problems-at="problemsAt"
      />
      <PlanField
        class="grow"
        :path="`${at}/minutes`"
        :label="phrase('day.load_times.minutes_per_use', { name })"
        bare
        :called="called(phrase('day.load_times.edit_minutes'))"
        :problems-at="problemsAt"
      />
    </template>
    <PlanField
      v-else-if="times.use === 'times'"
      class="grow"
      :path="`${at}/windows`"
      :label="phrase('day.load_times.set_times', { name })"
      placeholder="18:00–22:30"
      bare
      text
      :called="called(phrase('day.load_times.edit_times'))"
      :problems-at="problemsAt"
    />
    <p v-else class="self-center px-1 text-soft">24 h</p>
  </div>
</template>
