<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { Download } from '@lucide/vue'
import BankPicker from '@/ui/BankPicker.vue'
import CableTool from './CableTool.vue'
import { useAsked } from '@/stores/useAsked'
import { useOneBank } from '@/stops/banks/useOneBank'

const plan = usePlan()
const { built, bank, chosen } = useOneBank()
const { answer } = useAsked<Schemas['WiringView']>(
  () => bank.value?.id ?? '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/wiring', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { candidate: bank.value!.id } },
    }),
)
</script>

<template>
  <div v-if="bank">
    <BankPicker
      :banks="built"
      :chosen="[bank.id]"
      :label="phrase('banks.wiring_part.bank_draw')"
      @choose="(id) => (chosen = id)"
    />
    <template v-if="answer">
      <!-- The drawing is made by our own server, every word in it escaped. -->
      <!-- eslint-disable vue/no-v-html -->
      <div
        v-if="answer.svg"
        class="wiring sheet relative mt-5 overflow-x-auto p-4"
        tabindex="0"
        role="region"
        :aria-label="phrase('banks.wiring_part.wiring_drawing')"
        v-html="answer.svg"
      />
      <!-- eslint-enable vue/no-v-html -->
      <p v-else class="mt-5 text-lg">{{ answer.says }}</p>
      <div class="mt-3 flex flex-wrap items-start justify-between gap-4">
        <p class="max-w-2xl text-pretty text-soft">
          {{ phrase('banks.wiring_part.drawing_planning_design_certificate') }}
        </p>
        <a
          v-if="answer.svg"
          class="btn"
          data-export
          :href="`/api/rigs/${plan.rig!.id}/wiring.svg?candidate=${bank.id}`"
          download
        >
          <Download :size="16" aria-hidden="true" />
          {{ phrase('banks.wiring_part.save_drawing_svg') }}
        </a>
      </div>
      <h2 class="mt-8 text-xl">{{ phrase('banks.wiring_part.parts') }}</h2>
      <table class="mt-2 w-full max-w-4xl [overflow-wrap:anywhere]">
        <tbody>
          <tr v-for="p in answer.parts" :key="p.what" class="border-t border-line align-top">
            <td class="w-12 py-1.5 pr-3 text-right font-semibold">{{ p.count }} ×</td>
            <td class="py-1.5 pr-4">
              {{ p.what }}<template v-if="p.size">, {{ p.size }}</template>
              <span class="block text-sm text-soft">{{ p.note }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="mt-2 max-w-3xl text-sm text-soft">{{ answer.source }}.</p>
    </template>
    <CableTool class="mt-10" />
  </div>
  <p v-else class="text-soft">{{ phrase('banks.wiring_part.add_bank_first_see') }}</p>
</template>
