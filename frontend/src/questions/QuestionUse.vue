<script setup lang="ts">
import { api } from '@/api/client'
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useUi } from '@/stores/ui'
import PictureTile from '@/ui/PictureTile.vue'
import PlanField from '@/ui/PlanField.vue'
import { CalendarDays, House, Plug, Snowflake, Sun, Tent } from '@lucide/vue'
import { computed, ref, type Component } from 'vue'

/** How the rig is used: a pattern to begin with, then the two numbers that matter most. */
const plan = usePlan()
const ui = useUi()
const reference = useReference()
const PICTURES: Record<string, Component> = {
  hook_up: Plug,
  between: Tent,
  weekends: CalendarDays,
  week: Sun,
  aboard: House,
  winter: Snowflake,
}
const kind = computed(() => plan.document.rig.kind as string)
const patterns = computed(() =>
  [...(reference.data?.patterns ?? [])].sort(
    (a, b) => Number(b.kinds.includes(kind.value)) - Number(a.kinds.includes(kind.value)),
  ),
)
/** What typing into a field states. */
const STATED: Record<string, string> = {
  '/rig/off_grid_nights': '/stated/nights',
  '/rig/nights_in_a_row': '/stated/row',
}
const chosen = ref('')
/** What the owner entered would be lost: the pattern is for a rig that nobody has filled in. */
const filled = computed(() =>
  plan.rig!.topics.some((t) => t.key === 'loads' && t.status === 'stated'),
)

async function choose(key: string) {
  const params = { path: { rig_id: plan.rig!.id, pattern: key } }
  chosen.value = key
  const filled = await plan.fill(
    async () => {
      const { data } = await api
        .GET('/api/rigs/{rig_id}/patterns/{pattern}', { params })
        .catch(() => ({ data: undefined }))
      return (
        data && {
          label: phrase('questions.use.pattern', { name: data.name }),
          operations: data.operations,
        }
      )
    },
    (path) => (STATED[path] ? [STATED[path]] : []),
  )
  if (filled) return
  chosen.value = ''
  ui.say(phrase('questions.use.unanswered'))
}
</script>

<template>
  <div
    v-if="!filled"
    class="grid gap-3 sm:grid-cols-2"
    role="group"
    :aria-label="phrase('questions.use.patterns')"
  >
    <PictureTile
      v-for="p in patterns"
      :key="p.key"
      :icon="PICTURES[p.key]"
      :name="p.name"
      :says="p.why"
      :chosen="chosen === p.key"
      :data-tile="p.key"
      @click="choose(p.key)"
    />
  </div>
  <div class="mt-5 grid gap-4 sm:grid-cols-2">
    <PlanField
      path="/rig/off_grid_nights"
      :label="phrase('questions.use.nights')"
      :hint="phrase('questions.use.nights_hint')"
    />
    <PlanField
      path="/rig/nights_in_a_row"
      :label="phrase('questions.use.row')"
      :hint="phrase('questions.use.row_hint')"
    />
  </div>
</template>
