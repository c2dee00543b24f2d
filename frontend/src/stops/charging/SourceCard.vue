<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import IconButton from '@/ui/IconButton.vue'
import PlanField from '@/ui/PlanField.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check, Trash2 } from '@lucide/vue'
import { computed } from 'vue'
import { FIELDS, type SourceField } from './kinds'
import SpecField from '@/ui/SpecField.vue'
import { useSources } from '@/stores/useSources'
import { SOURCE_KINDS } from '@/ui/sourceKinds'

const props = defineProps<{ view: Schemas['SourceView'] }>()
const plan = usePlan()
const { remove } = useSources()
const source = computed(() => plan.document.sources[props.view.index])
const kind = computed(() => SOURCE_KINDS.find((k) => k.key === props.view.kind)!)
const fields = computed(() => FIELDS[props.view.kind]!)
const charges = computed(() => !['generator', 'upkeep'].includes(props.view.kind))
/** Those of some fields that this source has. */
const shown = (some: SourceField[]) =>
  some.filter((f) => source.value && (!f.when || f.when(source.value)))
const at = computed(() => `/sources/${props.view.index}`)
const MONTHS = [
  phrase('charging.source_card.jan'),
  phrase('charging.source_card.feb'),
  phrase('charging.source_card.mar'),
  phrase('charging.source_card.apr'),
  phrase('charging.source_card.may'),
  phrase('charging.source_card.jun'),
  phrase('charging.source_card.jul'),
  phrase('charging.source_card.aug'),
  phrase('charging.source_card.sep'),
  phrase('charging.source_card.oct'),
  phrase('charging.source_card.nov'),
  phrase('charging.source_card.dec'),
]
/** Opened by itself where something in it was refused. */
const open = computed(() =>
  fields.value.more.some((f) => plan.drafts[`${at.value}/${f.key}`]?.message),
)
</script>

<template>
  <div v-if="source" class="sheet p-4" role="group" :aria-label="view.name" :data-source="view.id">
    <header class="flex items-start gap-3">
      <span class="grid size-10 shrink-0 place-items-center rounded-lg bg-wash text-sea">
        <component :is="kind.icon" :size="22" aria-hidden="true" />
      </span>
      <div class="min-w-0 grow">
        <PlanField
          :path="`${at}/name`"
          :label="phrase('charging.source_card.name', { name: kind.name.toLowerCase() })"
          bare
          text
          :placeholder="kind.name"
        />
        <p class="mt-1 flex flex-wrap items-center gap-x-2 text-soft">
          <b class="font-semibold text-ink" data-most>{{ view.most }}</b> {{ kind.says }}
          <RouterLink
            v-if="charges && plan.rig!.banks.candidates.length"
            class="flex items-center gap-1 underline underline-offset-4"
            :to="{
              name: 'rig',
              params: { id: plan.rig!.id, stop: 'charging' },
              query: { part: 'audit' },
            }"
            :data-worst="view.worst"
          >
            <template v-if="view.worst === 'ok'"
              ><Check :size="15" class="text-sea" aria-hidden="true" />
              {{ phrase('charging.source_card.suits_banks') }}</template
            >
            <template v-else
              ><SeverityMark :severity="view.worst" class="scale-90" />
              {{ phrase('charging.source_card.suit_banks') }}</template
            >
          </RouterLink>
        </p>
      </div>
      <IconButton
        :icon="Trash2"
        small
        :label="phrase('charging.source_card.remove', { name: view.name })"
        @click="remove(view.index)"
      />
    </header>
    <p
      v-if="source.assumed"
      class="mt-3 flex flex-wrap items-center gap-3 rounded-lg bg-wash px-3 py-2"
      data-assumed
    >
      <span class="grow">{{ phrase('charging.source_card.assumed_usual_such_rigs') }}</span>
      <button
        type="button"
        class="btn min-h-8 px-3 text-sm"
        @click="
          plan.edit(phrase('charging.source_card.confirm_source'), {
            op: 'replace',
            path: `${at}/assumed`,
            value: false,
          })
        "
      >
        {{ phrase('charging.source_card.yes_right') }}
      </button>
    </p>
    <div class="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
      <SpecField
        v-for="f in shown(fields.first)"
        :key="f.key"
        :at="`/sources/${view.index}`"
        :field="f"
        :value="source[f.key]"
      />
      <template v-if="view.kind === 'stream'">
        <div class="col-span-full">
          <p class="eyebrow mb-1">{{ phrase('charging.source_card.average_watts_month') }}</p>
          <div class="grid grid-cols-4 gap-2 sm:grid-cols-6">
            <PlanField
              v-for="(m, i) in MONTHS"
              :key="m"
              :path="`${at}/monthly_w/${i}`"
              :label="m"
            />
          </div>
        </div>
      </template>
    </div>
    <details v-if="fields.more.length" class="mt-2" :open="open">
      <summary class="discloses">
        {{ phrase('charging.source_card.voltages_stages_settings') }}
      </summary>
      <div class="mt-1 grid grid-cols-2 items-end gap-3 sm:grid-cols-4">
        <SpecField
          v-for="f in shown(fields.more)"
          :key="f.key"
          :at="`/sources/${view.index}`"
          :field="f"
          :value="source[f.key]"
        />
      </div>
    </details>
  </div>
</template>
