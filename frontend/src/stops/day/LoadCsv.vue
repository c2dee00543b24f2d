<script setup lang="ts">
import { phrase } from '@/phrases/day'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import CsvImport from '@/ui/CsvImport.vue'
import { Download } from '@lucide/vue'
import { useLoads } from '@/stores/useLoads'

const plan = usePlan()
const ui = useUi()
const { addMany } = useLoads()

async function take(rows: Record<string, unknown>[]) {
  await addMany(rows.map((r) => r.load as Record<string, unknown>))
  ui.say(phrase('day.load_csv.loads_added', { count: rows.length }))
}
</script>

<template>
  <div class="flex flex-wrap gap-2">
    <CsvImport
      one="load"
      many="loads"
      :url="`/api/rigs/${plan.rig!.id}/loads/preview`"
      sample="/api/loads-sample.csv"
      @take="take"
    >
      <a class="btn" :href="`/api/rigs/${plan.rig!.id}/loads.csv`" download>
        <Download :size="16" aria-hidden="true" /> {{ phrase('day.load_csv.loads_csv') }}
      </a>
    </CsvImport>
  </div>
</template>
