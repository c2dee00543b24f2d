<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { useUi } from '@/stores/ui'
import { ScanText } from '@lucide/vue'
import CatalogueTabs from './CatalogueTabs.vue'
import ModelCsv from './ModelCsv.vue'
import OwnModels from './OwnModels.vue'

const ui = useUi()
</script>

<template>
  <h2 class="mb-2 text-xl">{{ phrase('banks.batteries_part.catalogue') }}</h2>
  <p class="mb-3 max-w-3xl text-pretty text-soft">
    {{ phrase('banks.batteries_part.typical_batteries_size_weight') }}
  </p>
  <section class="sheet px-5 py-2"><CatalogueTabs /></section>
  <h2 class="mt-10 text-xl">{{ phrase('banks.batteries_part.own_batteries') }}</h2>
  <p class="max-w-3xl text-pretty text-soft">
    {{ phrase('banks.batteries_part.enter_label_datasheet_battery') }}
  </p>
  <div class="mt-3 flex flex-wrap gap-2">
    <button type="button" class="btn" @click="ui.labelShown = true">
      <ScanText :size="16" aria-hidden="true" />
      {{ phrase('banks.batteries_part.read_label_first') }}
    </button>
    <ModelCsv />
  </div>
  <OwnModels />
</template>
