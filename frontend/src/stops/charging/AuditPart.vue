<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check } from '@lucide/vue'
import RemedyLadder from './RemedyLadder.vue'
import { useCharging } from './useCharging'

const { answer } = useCharging()
</script>

<template>
  <div v-if="answer">
    <p class="mb-4 max-w-3xl text-pretty text-soft">
      {{ phrase('charging.audit_part.sources_bank_judged_figures') }}
    </p>
    <p v-if="!answer.audits.some((a) => a.suitability.length)" class="text-soft">
      {{ phrase('charging.audit_part.enter_source_add_bank') }}
    </p>
    <details
      v-for="(a, i) in answer.audits"
      :key="a.id"
      class="sheet mb-3 px-5 py-2"
      :open="i === 0"
      :data-audit="a.id"
    >
      <summary class="discloses flex min-h-11 w-full items-center">
        <span class="flex grow flex-wrap items-center gap-x-5 gap-y-1">
          <h2 class="flex grow items-center gap-2 text-xl text-ink">
            <ChemistryMark :battery-class="a.battery_class" /> {{ a.title }}
          </h2>
          <span
            v-for="j in a.suitability"
            :key="j.source"
            class="flex items-center gap-1.5 text-sm"
          >
            <Check
              v-if="j.verdict === 'ok'"
              :size="16"
              class="shrink-0 text-sea"
              :aria-label="phrase('charging.audit_part.suitable')"
            />
            <SeverityMark v-else :severity="j.verdict" class="shrink-0" />
            {{ j.name }}
          </span>
        </span>
      </summary>
      <div
        v-for="j in a.suitability"
        :key="j.source"
        class="mt-3 border-t border-line pt-3"
        :data-judged="j.source"
        :data-verdict="j.verdict"
      >
        <h3 class="flex items-center gap-2 font-sans font-semibold">
          <Check
            v-if="j.verdict === 'ok'"
            :size="19"
            class="shrink-0 text-sea"
            aria-hidden="true"
          />
          <SeverityMark v-else :severity="j.verdict" class="shrink-0" />
          {{ j.name }}
          <span v-if="j.verdict === 'ok'" class="font-normal text-soft">
            {{
              j.solved.length
                ? phrase('charging.audit_part.suitable_after_changes')
                : phrase('charging.audit_part.suitable')
            }}
          </span>
        </h3>
        <ul class="mt-1 space-y-1 pl-7">
          <li v-for="p in j.points" :key="p.code" class="leading-snug" :data-point="p.code">
            <SentenceText :tokens="p.says" />
          </li>
          <li
            v-for="p in j.solved"
            :key="p.code"
            class="leading-snug text-soft line-through decoration-1"
          >
            <SentenceText :tokens="p.says" plain />
          </li>
        </ul>
        <RemedyLadder v-if="j.rungs.length" :rungs="j.rungs" :name="j.name" class="ml-7" />
      </div>
    </details>
    <p class="max-w-3xl text-sm text-soft">
      {{ phrase('charging.audit_part.mains_voltage_inside_charger') }}
    </p>
  </div>
</template>
