<script setup lang="ts">
import { usePlan } from '@/stores/plan'

/** Rigs that are made as soon as the program answers. */
const plan = usePlan()
</script>

<template>
  <ul v-if="plan.unmade.length" class="mt-4 space-y-2" data-waiting>
    <li
      v-for="rig in plan.unmade"
      :key="rig.key"
      class="flex flex-wrap items-center gap-x-4 gap-y-2 rounded-lg border-2 border-dashed border-care px-4 py-2"
      role="status"
    >
      <p class="min-w-0 grow leading-snug">
        <b>{{ rig.label }}</b> is not stored yet.
        {{
          plan.whyUnmade[rig.key] ||
          'It is kept in this browser, and made by itself when the program answers.'
        }}
      </p>
      <button type="button" class="btn" @click="plan.sendAgain()">Try now</button>
      <button type="button" class="btn btn-quiet" @click="plan.dropUnmade(rig.key)">Drop it</button>
    </li>
  </ul>
</template>
