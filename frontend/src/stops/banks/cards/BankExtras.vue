<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import type { CandidateView } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useRows } from '@/stores/useRows'
import ExtraFields from '@/ui/ExtraFields.vue'
import { Plus, X } from '@lucide/vue'
import { computed } from 'vue'
import { useBanks } from '@/stores/useBanks'

const props = defineProps<{ candidate: CandidateView }>()
const plan = usePlan()
const { addExtra } = useBanks()
const extras = computed(() => plan.document.candidates[props.candidate.index]?.extras ?? [])
const list = () => `/candidates/${props.candidate.index}/extras`
const at = (i: number) => `${list()}/${i}`
const rows = useRows(list, () => extras.value)
const remove = (i: number) =>
  rows.remove(phrase('banks.bank_extras.remove_extra', { title: props.candidate.title }), i)
</script>

<template>
  <div>
    <ul v-if="extras.length" class="space-y-1.5">
      <li
        v-for="(x, i) in extras"
        :key="x.id"
        class="grid grid-cols-[1fr_6.2rem_auto] items-start gap-1.5"
      >
        <ExtraFields :at="at(i)" :extra="x" :title="candidate.title" />
        <button
          type="button"
          class="btn btn-quiet btn-icon"
          :aria-label="
            phrase('banks.bank_extras.remove', {
              name: x.name || phrase('banks.bank_extras.extra'),
            })
          "
          @click="remove(i)"
        >
          <X :size="15" />
        </button>
      </li>
    </ul>
    <button type="button" class="btn btn-quiet -ml-3" @click="addExtra(candidate)">
      <Plus :size="15" aria-hidden="true" />
      {{ phrase('banks.bank_extras.add_extra') }}
    </button>
  </div>
</template>
