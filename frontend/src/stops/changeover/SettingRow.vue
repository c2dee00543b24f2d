<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import type { Schemas } from '@/api/client'
import PlanField from '@/ui/PlanField.vue'
import { computed, useId } from 'vue'
import { useChangeover } from './useChangeover'

/** One setting: what it should be, what it is now, whether its device can be set so, and whether it is. */
const props = defineProps<{ row: Schemas['SettingRowView']; device: string; fixed?: boolean }>()
const { tick, tickedOn, isTicked, setCan, canOf } = useChangeover()
const id = useId()
const CAN = [
  { value: 'unknown', name: phrase('changeover.settings_part.unknown') },
  { value: 'yes', name: phrase('changeover.settings_part.yes') },
  { value: 'no', name: phrase('changeover.settings_part.no') },
]
const can = computed(() => canOf(props.row))
</script>

<template>
  <li
    class="grid items-center gap-x-4 gap-y-1 py-1"
    :class="
      fixed
        ? 'grid-cols-[1fr_auto] sm:grid-cols-[1fr_26.5rem]'
        : 'grid-cols-[1fr_auto] sm:grid-cols-[1fr_7rem_7rem_8rem_4.5rem]'
    "
    :data-setting="row.key"
  >
    <span class="leading-snug">{{ row.name }}</span>
    <span class="leading-snug font-semibold" :class="row.now_path || fixed ? '' : 'col-span-2'"
      >{{ row.should }}
      <span v-if="!row.now_path && row.now && !fixed" class="font-normal text-soft">{{
        phrase('changeover.settings_part.now_is', { now: row.now })
      }}</span></span
    >
    <div v-if="!fixed" class="col-span-2 flex items-center gap-4 sm:contents">
      <PlanField
        v-if="row.now_path"
        :path="row.now_path"
        :label="phrase('changeover.settings_part.now_of', { name: row.name, device })"
        :unit="row.unit"
        :placeholder="phrase('changeover.settings_part.now')"
        class="w-28 sm:w-auto"
        bare
      />
      <label :for="id" class="sr-only">{{
        phrase('changeover.settings_part.can_of', { name: row.name, device })
      }}</label>
      <select :id="id" class="field w-auto grow" data-can @change="setCan(row, $event)">
        <option v-for="c in CAN" :key="c.value" :value="c.value" :selected="c.value === can">
          {{ c.name }}
        </option>
      </select>
      <label class="flex min-h-11 items-center gap-2 sm:min-h-0">
        <input
          type="checkbox"
          class="size-4.5 shrink-0 accent-sea"
          :checked="isTicked(row.key)"
          :aria-label="phrase('changeover.settings_part.set_of', { name: row.name, device })"
          @change="tick(row.key, row.name, !isTicked(row.key))"
        />
        <span v-if="isTicked(row.key)" class="text-sm whitespace-nowrap text-soft">{{
          tickedOn(row.key).slice(5)
        }}</span>
      </label>
    </div>
  </li>
</template>
