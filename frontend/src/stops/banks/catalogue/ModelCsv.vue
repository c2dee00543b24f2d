<script setup lang="ts">
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
  await plan.edit('batteries from CSV', ...operations)
  ui.say(rows.length === 1 ? '1 battery added.' : `${rows.length} batteries added.`)
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
      <Download :size="16" aria-hidden="true" /> Yours as CSV
    </a>
    <a class="btn" href="/api/catalogue.csv" download>
      <Download :size="16" aria-hidden="true" /> Catalogue as CSV
    </a>
  </CsvImport>
</template>
