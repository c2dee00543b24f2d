<script setup lang="ts">
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
      <span class="eyebrow mb-1 block">What runs</span>
      <select v-model="chosen" class="field">
        <option v-for="r in all" :key="r.id" :value="r.id">{{ r.name }}</option>
      </select>
    </label>
    <p>
      <span class="block text-sm text-soft">on 1 kWh usable</span>
      <FigureLink :figure="found.on_kwh" name="On 1 kWh" class="text-2xl font-semibold" />
    </p>
    <p v-if="found.on_old">
      <span class="block text-sm text-soft">on the old bank as it is</span>
      <FigureLink :figure="found.on_old" name="On the old bank" class="text-2xl font-semibold" />
    </p>
    <p v-else class="max-w-xs text-sm text-soft">
      Enter on the Rig stop what you know of the old bank to see it for that too.
    </p>
  </div>
</template>
