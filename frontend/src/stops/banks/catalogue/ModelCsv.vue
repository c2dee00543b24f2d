<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import CsvImport from '@/ui/CsvImport.vue'
import { Download } from '@lucide/vue'

const plan = usePlan()
const ui = useUi()

async function take(rows: Record<string, unknown>[]) {
  const taken = new Set(plan.document.own_models.map((m) => m.id))
  let n = 1
  const operations = rows.map((r) => {
    while (taken.has(`own-${n}`)) n++
    taken.add(`own-${n}`)
    return {
      op: 'add' as const,
      path: '/own_models/-',
      value: { ...(r.model as object), id: `own-${n}` },
    }
  })
  await plan.edit(phrase('banks.model_csv.batteries_csv'), ...operations)
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
      <Download :size="16" aria-hidden="true" /> {{ phrase('banks.model_csv.batteries_csv_2') }}
    </a>
    <a class="btn" href="/api/catalogue.csv" download>
      <Download :size="16" aria-hidden="true" /> {{ phrase('banks.model_csv.catalogue_csv') }}
    </a>
  </CsvImport>
</template>
