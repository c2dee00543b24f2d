<script setup lang="ts">
import { useUi } from '@/stores/ui'
import { ScanText } from '@lucide/vue'
import CatalogueTabs from './CatalogueTabs.vue'
import ModelCsv from './ModelCsv.vue'
import OwnModels from './OwnModels.vue'

const ui = useUi()
</script>

<template>
  <h2 class="mb-2 text-xl">The catalogue</h2>
  <p class="mb-3 max-w-3xl text-pretty text-soft">
    Made-up batteries of the size, weight and price that are sold. Each line is the fewest strings
    that cover the need.
  </p>
  <section class="sheet px-5 py-2"><CatalogueTabs /></section>
  <h2 class="mt-10 text-xl">Your own batteries</h2>
  <p class="max-w-3xl text-pretty text-soft">
    Copy the label and the datasheet of a battery that you are offered, new or used; it then stands
    in the catalogue above, and Find banks goes through it too.
  </p>
  <div class="mt-3 flex flex-wrap gap-2">
    <button type="button" class="btn" @click="ui.labelShown = true">
      <ScanText :size="16" aria-hidden="true" /> Read a label first
    </button>
    <ModelCsv />
  </div>
  <OwnModels />
</template>
