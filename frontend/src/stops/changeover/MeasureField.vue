<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import PlanField from '@/ui/PlanField.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check, Gauge } from '@lucide/vue'
import ExpectedReading from './ExpectedReading.vue'
import { useChangeover, type Measured } from './useChangeover'

/** One reading: where, what it should be where that is not told above, what was read, and what is likely
 *  wrong. */
defineProps<{ measured: Measured; large?: boolean; told?: boolean }>()
const { measure, practising } = useChangeover()
</script>

<template>
  <div class="py-2" :data-measured="measured.key" :data-verdict="measured.verdict">
    <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
      <div class="min-w-0 grow basis-32 leading-snug">
        <p class="font-semibold">
          <span
            v-if="measured.mark"
            class="mr-1 inline-block rounded-full bg-ink px-1.5 text-sm font-semibold text-paper"
            >{{ measured.mark }}</span>{{ measured.label }}
        </p>
        <p v-if="!told || measured.before" :class="large ? '' : 'text-sm'">
          <ExpectedReading v-if="!told" :measured="measured" />
          <span v-if="measured.before" class="block">{{
            phrase('changeover.measure.before', { before: measured.before })
          }}</span>
        </p>
      </div>
      <PlanField
        :path="measured.path"
        :label="measured.label"
        bare
        :unit="measured.unit"
        class="w-32"
        :problems-at="`problem-${measured.key}`"
      />
      <button
        v-if="practising"
        type="button"
        class="btn"
        :aria-label="phrase('changeover.measure.measure_of', { label: measured.label })"
        @click="measure(measured)"
      >
        <Gauge :size="16" aria-hidden="true" /> {{ phrase('changeover.measure.measure') }}
      </button>
      <Check
        v-if="measured.verdict === 'ok'"
        :size="20"
        class="mb-2 text-sea"
        :aria-label="phrase('changeover.measure.ok')"
      />
      <SeverityMark v-else-if="measured.verdict === 'out'" severity="blocking" class="mb-2" />
    </div>
    <div
      v-if="measured.verdict === 'out'"
      class="mt-2 rounded-lg border-l-4 border-blocking bg-well px-3 py-2"
      role="status"
    >
      <p class="font-semibold text-blocking">
        {{ phrase('changeover.measure.out', { value: measured.value, range: measured.range }) }}
      </p>
      <p v-if="measured.remark">{{ measured.remark }}</p>
      <template v-if="measured.causes.length">
        <p class="mt-1 text-sm text-soft">{{ phrase('changeover.measure.causes') }}</p>
        <ol class="list-decimal pl-5">
          <li
            v-for="c in measured.causes"
            :key="c.says"
            class="mt-1 leading-snug"
            :data-cause="c.kind"
          >
            {{ c.says }} <span class="text-soft">{{ c.next }}</span>
          </li>
        </ol>
      </template>
    </div>
  </div>
</template>
