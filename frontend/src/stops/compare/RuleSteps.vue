<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'

const plan = usePlan()
const steps = computed(() => plan.rig!.compare.verdict.steps)
const SET_BY: Record<number, string[]> = {
  1: ['verdict_nights'],
  3: ['verdict_critical', 'night_elsewhere', 'verdict_served'],
  4: ['verdict_clear', 'verdict_near', 'verdict_risk', 'verdict_within', 'verdict_purse'],
}
</script>

<template>
  <section data-rules>
    <p class="max-w-3xl text-soft">{{ phrase('compare.rule_steps.rules_apply_order_change') }}</p>
    <ol class="mt-2 divide-y divide-line border-y border-line">
      <li
        v-for="s in steps"
        :key="s.rule"
        class="grid gap-x-6 gap-y-2 py-3 md:grid-cols-[1fr_20rem]"
        :data-rule="s.rule"
      >
        <div class="grid grid-cols-[1.6rem_1fr] leading-snug">
          <span class="font-semibold text-sea">{{ s.rule }}</span>
          <p>
            <b class="font-semibold">{{ s.name }}</b>
            <span class="block"><SentenceText :tokens="s.says" /></span>
          </p>
        </div>
        <div v-if="SET_BY[s.rule]" class="grid gap-2">
          <AssumptionField v-for="k in SET_BY[s.rule]" :key="k" :name="k" />
        </div>
      </li>
    </ol>
  </section>
</template>
