<script setup lang="ts">
import { phrase } from '@/phrases/need'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { Anchor } from '@lucide/vue'
import { computed } from 'vue'

const plan = usePlan()
const reference = useReference()
const days = computed(() => plan.rig!.day.types)
const names = computed(() => plan.document.day.types)
const classes = computed(() => plan.rig!.need.classes.map((c) => c.battery_class))
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="needs w-full min-w-[44rem]">
      <thead>
        <tr class="text-left text-sm text-soft">
          <th>{{ phrase('need.day_needs.kind_day') }}</th>
          <th class="text-right">{{ phrase('need.day_needs.day') }}</th>
          <th class="text-right">{{ phrase('need.day_needs.need') }}</th>
          <th v-for="c in classes" :key="c" class="text-right">
            <span class="inline-flex items-center gap-1.5">
              <ChemistryMark :battery-class="c" />
              <span class="sr-only">{{ reference.classes.get(c)?.name }}</span>
            </span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(d, i) in days"
          :key="d.id"
          :class="d.governs ? 'font-semibold' : d.carried ? '' : 'text-soft'"
          :data-need-of="d.id"
        >
          <th scope="row" class="text-left" :class="d.governs ? '' : 'font-normal'">
            {{ names[i]?.name }}
            <span v-if="d.governs" class="ml-1 inline-flex items-center gap-1 text-sm text-sea"
              ><Anchor :size="13" aria-hidden="true" />
              {{ phrase('need.day_needs.sizes_bank') }}</span
            >
          </th>
          <td><FigureLink :figure="d.total" :name="phrase('need.day_needs.day')" /></td>
          <td><FigureLink :figure="d.need" :name="phrase('need.day_needs.need')" /></td>
          <td v-for="(l, k) in d.labels" :key="k">
            <FigureLink :figure="l" :name="phrase('need.day_needs.rated_capacity')" />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.needs {
  border-collapse: collapse;
}
.needs th,
.needs td {
  padding: 0.4rem 0 0.4rem 0.8rem;
}
.needs th:first-child {
  padding-left: 0;
}
.needs td {
  text-align: right;
}
.needs td :deep(.figure) {
  text-align: right;
}
.needs tbody tr {
  border-top: 1px solid var(--line);
}
</style>
