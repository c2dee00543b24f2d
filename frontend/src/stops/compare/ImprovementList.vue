<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import FoldedSection from '@/ui/FoldedSection.vue'
import PlanField from '@/ui/PlanField.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { send } from './packageEdits'

/** What is planned beside the bank, what else could be, and what is not possible for the owner. */
defineProps<{ found: Schemas['PackagesView'] }>()
const SKILLS: Record<string, string> = {
  anyone: phrase('compare.improvement_list.anyone'),
  handy: phrase('compare.improvement_list.handy'),
  electrician: phrase('compare.improvement_list.electrician'),
}
</script>

<template>
  <section v-if="found.planned.length" class="mt-6" data-planned>
    <h2 class="text-xl">{{ phrase('compare.improvement_list.planned') }}</h2>
    <p class="mt-1 text-soft">{{ phrase('compare.improvement_list.planned_says') }}</p>
    <ul class="sheet mt-3 divide-y divide-line">
      <li
        v-for="one in found.planned"
        :key="one.key"
        class="grid items-end gap-x-5 gap-y-2 p-4 sm:grid-cols-[minmax(0,1fr)_11rem_auto]"
        :data-improvement="one.key"
      >
        <div class="min-w-0">
          <h3 class="text-lg leading-tight">{{ one.says }}</h3>
          <p class="mt-1 text-sm text-soft">
            {{ one.price }} · <template v-if="one.hours">{{ one.hours }} · </template
            >{{ SKILLS[one.skill] }}
          </p>
          <p v-if="one.asks.length" class="mt-1 text-sm text-caution">
            <SentenceText :tokens="one.asks" plain />
          </p>
        </div>
        <PlanField
          :label="phrase('compare.improvement_list.price')"
          :path="`/improvements/${one.index}/price`"
        />
        <button
          type="button"
          class="btn"
          data-remove-improvement
          @click="send(phrase('compare.improvement_list.label_remove'), one.take)"
        >
          {{ phrase('compare.improvement_list.remove') }}
        </button>
      </li>
    </ul>
  </section>
  <FoldedSection name="improvements" class="mt-5" :title="phrase('compare.improvement_list.title')">
    <p class="max-w-3xl text-soft">
      {{
        found.possible.length
          ? phrase('compare.improvement_list.says')
          : phrase('compare.improvement_list.empty')
      }}
    </p>
    <ul v-if="found.possible.length" class="mt-3 divide-y divide-line">
      <li
        v-for="one in found.possible"
        :key="one.key"
        class="grid gap-x-5 gap-y-2 py-3 sm:grid-cols-[minmax(0,1fr)_auto]"
        :data-improvement="one.key"
      >
        <div class="min-w-0">
          <h3 class="leading-tight font-semibold">{{ one.says }}</h3>
          <p class="text-sm text-soft">
            {{ one.price }} · <template v-if="one.hours">{{ one.hours }} · </template
            >{{ SKILLS[one.skill] }}
          </p>
          <p v-if="one.hidden" class="text-sm text-soft">
            {{ phrase('compare.improvement_list.hidden') }}: {{ one.hidden }}.
          </p>
          <p v-if="one.worse.length" class="text-sm">
            <SentenceText :tokens="one.worse" plain />
          </p>
          <p v-if="one.asks.length" class="text-sm text-caution">
            <SentenceText :tokens="one.asks" plain />
          </p>
        </div>
        <div class="flex flex-wrap content-start gap-2">
          <button
            type="button"
            class="btn"
            data-take-improvement
            @click="send(phrase('compare.improvement_list.label_take'), one.take)"
          >
            {{ phrase('compare.improvement_list.take') }}
          </button>
          <button
            type="button"
            class="btn btn-quiet"
            data-refuse-improvement
            @click="send(phrase('compare.improvement_list.label_refuse'), one.refuse)"
          >
            {{ phrase('compare.improvement_list.refuse') }}
          </button>
        </div>
      </li>
    </ul>
    <template v-if="found.refused.length">
      <h3 class="mt-4 text-lg">{{ phrase('compare.improvement_list.refused') }}</h3>
      <ul class="mt-1 space-y-1">
        <li v-for="(r, i) in found.refused" :key="i" class="flex flex-wrap items-center gap-3">
          <span>{{ r.says }}</span>
          <button
            type="button"
            class="btn btn-quiet"
            @click="send(phrase('compare.improvement_list.label_allow'), r.allow)"
          >
            {{ phrase('compare.improvement_list.allow') }}
          </button>
        </li>
      </ul>
    </template>
  </FoldedSection>
</template>
