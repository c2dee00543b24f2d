<script setup lang="ts">
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import FigureLink from '@/ui/FigureLink.vue'
import { computed, ref } from 'vue'

const plan = usePlan()
const all = computed(() => plan.rig!.need.runtimes)
const chosen = ref('day')
const found = computed(() => all.value.find((r) => r.id === chosen.value) ?? all.value[0])
</script>

<template>
  <div v-if="found" class="flex flex-wrap items-end gap-x-8 gap-y-3" data-runtime>
    <label class="w-72 max-w-full">
      <span class="eyebrow mb-1 block">{{ phrase('need.runtime_tool.appliance') }}</span>
      <select v-model="chosen" class="field">
        <option v-for="r in all" :key="r.id" :value="r.id">{{ r.name }}</option>
      </select>
    </label>
    <p>
      <span class="block text-sm text-soft">{{ phrase('need.runtime_tool.n1_kwh_usable') }}</span>
      <FigureLink
        :figure="found.on_kwh"
        :name="phrase('need.runtime_tool.n1_kwh')"
        class="text-2xl font-semibold"
      />
    </p>
    <p v-if="found.on_old">
      <span class="block text-sm text-soft">{{ phrase('need.runtime_tool.old_bank_today') }}</span>
      <FigureLink
        :figure="found.on_old"
        :name="phrase('need.runtime_tool.old_bank_2')"
        class="text-2xl font-semibold"
      />
    </p>
    <p v-else class="max-w-xs text-sm text-soft">
      {{ phrase('need.runtime_tool.enter_old_bank_rig') }}
    </p>
  </div>
</template>
