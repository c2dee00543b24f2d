<script setup lang="ts">
import type { CandidateView } from '@/api/client'
import { usePlan } from '@/stores/plan'
import PlanField from '@/ui/PlanField.vue'
import { Plus, X } from '@lucide/vue'
import { computed } from 'vue'
import { useBanks } from '@/stores/useBanks'

const props = defineProps<{ candidate: CandidateView }>()
const plan = usePlan()
const { addExtra } = useBanks()
const extras = computed(() => plan.document.candidates[props.candidate.index]?.extras ?? [])
const at = (i: number) => `/candidates/${props.candidate.index}/extras/${i}`

function remove(i: number) {
  plan.edit(`${props.candidate.title}: remove an extra`, { op: 'remove', path: at(i) })
}
</script>

<template>
  <div>
    <ul v-if="extras.length" class="space-y-1.5">
      <li
        v-for="(x, i) in extras"
        :key="x.id"
        class="grid grid-cols-[1fr_6.2rem_auto] items-start gap-1.5"
      >
        <PlanField
          :path="`${at(i)}/name`"
          label="What must be bought besides"
          bare
          text
          placeholder="charger, box, cable"
          :called="`${candidate.title}: extra`"
        />
        <PlanField
          :path="`${at(i)}/price`"
          :label="`Price of ${x.name || 'the extra'}`"
          bare
          :unit="plan.rig!.units.currency"
          :called="`${candidate.title}: price of an extra`"
        />
        <button
          type="button"
          class="btn btn-quiet btn-icon"
          :aria-label="`Remove ${x.name || 'the extra'}`"
          @click="remove(i)"
        >
          <X :size="15" />
        </button>
      </li>
    </ul>
    <button type="button" class="btn btn-quiet -ml-3" @click="addExtra(candidate)">
      <Plus :size="15" aria-hidden="true" /> Add what must be bought besides
    </button>
  </div>
</template>
