<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import { computed } from 'vue'

const plan = usePlan()
const compare = computed(() => plan.rig!.compare)
const most = computed(() =>
  Math.max(1, ...compare.value.corrections.flatMap((c) => c.ratios.map((r) => r.value ?? 0))),
)
</script>

<template>
  <div class="relative overflow-x-auto" data-same-label>
    <p class="mb-3 sticky left-0 max-w-[min(48rem,calc(100vw-5rem))] text-pretty text-soft">
      {{ phrase('compare.same_label.first_line_compares_rated') }}
    </p>
    <table class="w-full border-collapse">
      <thead>
        <tr>
          <th class="pb-2 text-left">
            <span class="sr-only">{{ phrase('compare.same_label.correction') }}</span>
          </th>
          <th
            v-for="c in compare.compared_banks"
            :key="c.id"
            scope="col"
            class="min-w-[8rem] pr-4 pb-2 text-left"
          >
            <span class="flex items-center gap-2 font-semibold">
              <ChemistryMark :battery-class="c.battery_class" />{{ c.title }}
            </span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="step in compare.corrections"
          :key="step.key"
          class="border-t border-line align-top"
        >
          <th scope="row" class="w-64 min-w-[9rem] py-2 pr-4 text-left leading-snug">
            {{ step.name }}
            <span class="block text-sm font-normal text-soft">{{ step.says }}</span>
          </th>
          <td v-for="(f, i) in step.figures" :key="f.key" class="py-2 pr-4">
            <FigureLink :figure="f" :name="step.name" class="font-semibold" />
            <span class="mt-1 flex items-center gap-2">
              <span class="h-2 w-24 overflow-hidden rounded-full bg-line" aria-hidden="true">
                <span
                  class="block h-full rounded-full"
                  :style="{
                    width: `${((step.ratios[i]!.value ?? 0) / most) * 100}%`,
                    background: `var(--chem-${compare.compared_banks[i]!.battery_class})`,
                  }"
                />
              </span>
              <FigureLink
                :figure="step.ratios[i]!"
                :name="phrase('compare.same_label.compared_first')"
                class="text-sm"
              />
              <span class="-ml-1.5 text-sm text-soft" aria-hidden="true">×</span>
            </span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
