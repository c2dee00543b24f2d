<script setup lang="ts">
import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/questions'
import { usePlan } from '@/stores/plan'
import { useSources } from '@/stores/useSources'
import PictureTile from '@/ui/PictureTile.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import PlanField from '@/ui/PlanField.vue'
import { SOURCE_KINDS, type SourceKind } from '@/ui/sourceKinds'
import { computed } from 'vue'

/** What charges the bank, each with the one figure that matters most. */
const plan = usePlan()
const { add, remove } = useSources()
const CHARGING = SOURCE_KINDS.filter((k) => k.key !== 'upkeep')
const sources = computed(() => plan.document.sources)
const placeOf = (kind: string) => sources.value.findIndex((s) => s.kind === kind)
const shown = computed(() =>
  CHARGING.flatMap((k) => {
    const at = placeOf(k.key)
    return at >= 0 && k.key !== 'stream' ? [{ ...k, at, source: sources.value[at]! }] : []
  }),
)

function toggle(kind: SourceKind) {
  const at = placeOf(kind.key)
  if (at >= 0) remove(at)
  else add(kind)
}
</script>

<template>
  <div
    class="grid gap-3 sm:grid-cols-2 lg:grid-cols-3"
    role="group"
    :aria-label="phrase('questions.charge.sources')"
  >
    <PictureTile
      v-for="k in CHARGING"
      :key="k.key"
      :icon="k.icon"
      :name="k.name"
      :says="k.says"
      :chosen="placeOf(k.key) >= 0"
      several
      :data-tile="k.key"
      @click="toggle(k)"
    />
  </div>
  <div class="mt-5 grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
    <template v-for="s in shown" :key="s.source.id">
      <PlanField
        v-if="s.key === 'mains'"
        :path="`/sources/${s.at}/amps`"
        :label="phrase('questions.charge.mains_amps')"
        :hint="phrase('questions.charge.label')"
      />
      <PlanField
        v-if="s.key === 'solar' || s.key === 'generator'"
        :path="`/sources/${s.at}/watts`"
        :label="
          s.key === 'solar'
            ? phrase('questions.charge.panels')
            : phrase('questions.charge.generator')
        "
      />
      <PlanChoice
        v-if="s.key === 'engine'"
        :path="`/sources/${s.at}/link`"
        :label="phrase('questions.charge.link')"
        :value="s.source.link"
        :options="
          choicesOf('sources.link', {
            relay: phrase('questions.charge.relay'),
            dc_dc: phrase('questions.charge.dc_dc'),
          })
        "
      />
      <PlanField
        v-if="s.key === 'engine' && s.source.link === 'dc_dc'"
        :path="`/sources/${s.at}/amps`"
        :label="phrase('questions.charge.engine_amps')"
      />
    </template>
  </div>
  <p class="mt-4 max-w-2xl text-pretty text-soft">{{ phrase('questions.charge.later') }}</p>
</template>
