<script setup lang="ts">
import { phrase } from '@/phrases/harbor'
import type { CardView } from '@/api/client'
import { STOP_NAMES, type Stop } from '@/api/lists'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Copy, Download, Trash2 } from '@lucide/vue'
import { computed } from 'vue'
import { kindOf } from '@/ui/rigKinds'
import RigPicture from './RigPicture.vue'

const props = defineProps<{ card: CardView }>()
defineEmits<{ copy: []; remove: [] }>()

const kind = computed(() => kindOf(props.card.kind))
const strip = computed(() => props.card.figures?.strip ?? [])
const worst = computed(() => props.card.figures?.worst ?? '')
/** What the mark means: the first few checks by their names, and how many more there are. */
const MOST = 2
const where = computed(() => {
  const names = [
    ...new Set((props.card.figures?.checks ?? []).map((c) => c.name || STOP_NAMES[c.stop as Stop])),
  ]
  const more = names.length - MOST
  return more > 0
    ? phrase('harbor.rig_card.and_more', { names: names.slice(0, MOST).join(', '), count: more })
    : names.join(', ')
})
const figure = (stop: Stop) => strip.value.find((s) => s.stop === stop)?.figure ?? ''
const facts = computed(() =>
  [
    { name: STOP_NAMES.need, says: figure('need') },
    { name: phrase('harbor.rig_card.cost'), says: props.card.figures?.cost ?? '' },
    { name: phrase('harbor.rig_card.outlay'), says: props.card.figures?.outlay ?? '' },
    { name: STOP_NAMES.changeover, says: figure('changeover') },
  ].filter((f) => f.says),
)
</script>

<template>
  <article
    class="sheet flex flex-col"
    :data-card="card.name"
    :aria-busy="!card.figures || !!card.figures.looking"
  >
    <RouterLink
      :to="{ name: 'rig', params: { id: card.id, stop: 'rig' } }"
      class="flex grow flex-col rounded-t-[10px] p-5 hover:bg-wash"
    >
      <span class="flex items-start justify-between gap-3">
        <span class="min-w-0">
          <span class="block text-sm text-soft"
            >{{ kind.name }}<template v-if="strip[0]"> · {{ strip[0].figure }}</template></span
          >
          <h2 class="mt-1 text-2xl [overflow-wrap:anywhere]">{{ card.name }}</h2>
        </span>
        <RigPicture
          :kind="card.kind"
          :battery-class="card.figures?.battery_class ?? ''"
          class="-mt-1 shrink-0"
        />
      </span>
      <p class="mt-3 leading-snug">
        <b v-if="card.figures?.provisional" class="mr-1 text-sm text-caution" data-provisional>{{
          phrase('harbor.rig_card.provisional')
        }}</b>
        <SentenceText v-if="card.figures" :tokens="card.figures.result" plain />
        <span v-else class="text-soft">{{ phrase('harbor.rig_card.calculating') }}</span>
      </p>
      <p v-if="card.figures?.looking" class="mt-1 text-sm text-note" role="status" data-looking>
        {{ phrase('harbor.rig_card.looking') }}
      </p>
      <dl v-if="facts.length" class="mt-auto grid grid-cols-2 gap-x-6 gap-y-2 pt-4 leading-snug">
        <div v-for="f in facts" :key="f.name">
          <dt class="text-sm text-soft">{{ f.name }}</dt>
          <dd class="figure">{{ f.says }}</dd>
        </div>
      </dl>
      <p v-if="worst" class="mt-3 flex gap-2 leading-snug" data-worst>
        <SeverityMark :severity="worst" class="mt-0.5 shrink-0" />
        {{
          worst === 'blocking'
            ? phrase('harbor.rig_card.put_right', { where })
            : phrase('harbor.rig_card.check', { where })
        }}
      </p>
    </RouterLink>
    <RouterLink
      v-if="card.figures?.due?.length"
      class="flex gap-2 border-t border-line px-5 py-2.5 leading-snug hover:bg-wash"
      :to="{ name: 'rig', params: { id: card.id, stop: 'log' } }"
      data-due
    >
      <SeverityMark severity="caution" class="mt-0.5 shrink-0" />
      {{
        phrase('harbor.rig_card.due', {
          count: card.figures.due.length,
          first: card.figures.due[0]!,
        })
      }}
    </RouterLink>
    <RouterLink
      v-if="card.figures?.guide"
      class="btn btn-main mx-5 mb-4"
      :to="{ name: 'start', params: { id: card.id } }"
      data-go-on
      >{{ phrase('harbor.rig_card.go_on') }}</RouterLink
    >
    <footer class="flex flex-wrap border-t border-line px-3 py-1.5">
      <button type="button" class="btn btn-quiet" @click="$emit('copy')">
        <Copy :size="16" aria-hidden="true" /> {{ phrase('harbor.rig_card.copy') }}
      </button>
      <a class="btn btn-quiet" :href="`/api/rigs/${card.id}/file`" download>
        <Download :size="16" aria-hidden="true" /> {{ phrase('harbor.rig_card.export') }}
      </a>
      <button
        type="button"
        class="btn btn-quiet ml-auto"
        :aria-label="phrase('harbor.rig_card.delete')"
        :title="phrase('harbor.rig_card.delete')"
        @click="$emit('remove')"
      >
        <Trash2 :size="16" aria-hidden="true" />
      </button>
    </footer>
  </article>
</template>
