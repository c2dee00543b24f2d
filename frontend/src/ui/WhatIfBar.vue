<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'

const plan = usePlan()
const tried = computed(() => plan.rig?.what_if?.tried ?? null)
const said = computed(() => {
  const list = tried.value ?? []
  if (!list.length) return phrase('shared.what_if_bar.change_anything_figure_then')
  const last = list.slice(-3).join(', ')
  return phrase('shared.what_if_bar.tried', {
    count: list.length,
    before: list.length > 3 ? '… ' : '',
    last,
  })
})
</script>

<template>
  <div
    v-if="tried"
    class="border-b-2 border-dashed border-note bg-wash print:hidden"
    role="status"
    data-what-if
  >
    <div class="mx-auto flex max-w-[1240px] flex-wrap items-center gap-x-4 gap-y-2 px-4 py-2">
      <p class="min-w-0 grow leading-snug">
        <b>{{ phrase('shared.what_if_bar.what_if') }}</b> {{ said }}
      </p>
      <button type="button" class="btn btn-main" @click="plan.whatIf('keep')">
        {{ phrase('shared.what_if_bar.keep') }}
      </button>
      <button type="button" class="btn" @click="plan.whatIf('drop')">
        {{ phrase('shared.what_if_bar.discard') }}
      </button>
    </div>
  </div>
</template>
