<script setup lang="ts">
import { phrase } from '@/phrases/trial'
import type { Schemas } from '@/api/client'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { computed, ref, watch } from 'vue'

const props = defineProps<{ bank: Schemas['BankRunView']; moment: number }>()
defineEmits<{ look: [step: number] }>()
const FIRST = 6
const all = ref(false)
watch(
  () => props.bank.id,
  () => (all.value = false),
)
const shown = computed(() => (all.value ? props.bank.events : props.bank.events.slice(0, FIRST)))
</script>

<template>
  <p v-if="!bank.events.length" class="text-soft">
    {{ phrase('trial.event_list.nothing_went_wrong') }}
  </p>
  <ol v-else class="space-y-1">
    <li v-for="(e, i) in shown" :key="i" :data-event="e.code">
      <div
        class="flex gap-2 rounded-md px-2 py-1 leading-snug"
        :class="moment >= e.step && moment < e.until ? 'bg-wash' : ''"
      >
        <SeverityMark :severity="e.severity" class="mt-0.5 shrink-0" />
        <p>
          <button
            type="button"
            class="mr-1 font-semibold text-sea underline underline-offset-4"
            @click="$emit('look', e.step)"
          >
            {{ e.at }}</button><SentenceText :tokens="e.says" plain />
        </p>
      </div>
    </li>
  </ol>
  <button
    v-if="bank.events.length > FIRST"
    type="button"
    class="btn btn-quiet mt-1"
    @click="all = !all"
  >
    {{
      all
        ? phrase('trial.event_list.fewer')
        : phrase('trial.event_list.all', { events: bank.events.length })
    }}
  </button>
</template>
