<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { usePlan } from '@/stores/plan'
import { freshIds, useRows } from '@/stores/useRows'
import { useUi } from '@/stores/ui'
import CsvImport from '@/ui/CsvImport.vue'
import { Download } from '@lucide/vue'

const plan = usePlan()
const ui = useUi()

const own = useRows(
  () => '/own_models',
  () => plan.document.own_models,
)

async function take(rows: Record<string, unknown>[]) {
  const ids = freshIds(plan.document.own_models, 'own-', 1, rows.length)
  const values = rows.map((r, i) => ({ ...(r.model as object), id: ids[i] }))
  await own.add(phrase('banks.model_csv.batteries_csv'), ...values)
  ui.say(phrase('banks.model_csv.batteries_added', { count: rows.length }))
}
</script>

<template>
  <CsvImport
    one="battery"
    many="batteries"
    :url="`/api/rigs/${plan.rig!.id}/models/preview`"
    @take="take"
  >
    <a
      v-if="plan.document.own_models.length"
      class="btn"
      :href="`/api/rigs/${plan.rig!.id}/models.csv`"
      download
    >
      <Download :size="16" aria-hidden="true" />
      {{ phrase('banks.model_csv.your_batteries_as_csv') }}
    </a>
    <a class="btn" href="/api/catalogue.csv" download>
      <Download :size="16" aria-hidden="true" /> {{ phrase('banks.model_csv.catalogue_csv') }}
    </a>
  </CsvImport>
</template>
