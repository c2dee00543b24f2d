<script setup lang="ts">
import { phrase } from '@/phrases/harbor'
import { usePlan } from '@/stores/plan'

/** Rigs that are made as soon as the program answers. */
const plan = usePlan()
</script>

<template>
  <ul v-if="plan.unmade.length" class="mt-4 space-y-2" data-waiting>
    <li
      v-for="rig in plan.unmade"
      :key="rig.key"
      class="flex flex-wrap items-center gap-x-4 gap-y-2 rounded-lg border-2 border-dashed border-caution px-4 py-2"
    >
      <p class="min-w-0 grow leading-snug" role="status">
        <b>{{ rig.label }}</b>
        {{
          phrase('harbor.waiting_rigs.saved_yet', {
            whyUnmade:
              plan.whyUnmade[rig.key] ||
              phrase('harbor.waiting_rigs.kept_browser_created_automatically'),
          })
        }}
      </p>
      <button type="button" class="btn" @click="plan.sendAgain()">
        {{ phrase('harbor.waiting_rigs.try_now') }}
      </button>
      <button type="button" class="btn btn-quiet" @click="plan.dropUnmade(rig.key)">
        {{ phrase('harbor.waiting_rigs.discard') }}
      </button>
    </li>
  </ul>
</template>
