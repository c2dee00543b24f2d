<script setup lang="ts">
import { windowShelf } from '@/stores/shelf'
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed, ref } from 'vue'
import NeedWaterfall from './NeedWaterfall.vue'

const plan = usePlan()
const reference = useReference()
const KEY = 'vast-harbor-waterfall'
const shown = ref<string[]>(JSON.parse(windowShelf.read(KEY) ?? '["agm","lfp"]'))
const most = computed(() =>
  Math.max(
    1,
    ...plan
      .rig!.need.classes.filter((c) => shown.value.includes(c.battery_class))
      .map((c) => c.nameplate_wh.value ?? 0),
  ),
)

function choose(i: number, event: Event) {
  shown.value[i] = (event.target as HTMLSelectElement).value
  windowShelf.write(KEY, JSON.stringify(shown.value))
}
</script>

<template>
  <div class="grid gap-x-10 gap-y-6 lg:grid-cols-2">
    <div v-for="(key, i) in shown" :key="i">
      <div class="mb-3 flex items-center gap-2">
        <ChemistryMark :battery-class="key" />
        <label class="grow">
          <span class="sr-only">{{
            phrase('need.waterfall_pair.class_picture', { i: i + 1 })
          }}</span>
          <select class="field" @change="choose(i, $event)">
            <option
              v-for="c in reference.data?.classes"
              :key="c.key"
              :value="c.key"
              :selected="c.key === key"
            >
              {{ c.name }}
            </option>
          </select>
        </label>
      </div>
      <NeedWaterfall :battery-class="key" :most="most" />
    </div>
  </div>
</template>
