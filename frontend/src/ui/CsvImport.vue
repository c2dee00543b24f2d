<script setup lang="ts">
import { phrase } from '@/phrases/shared'
import { problemsOf } from '@/api/client'
import DialogFrame from './DialogFrame.vue'
import { Upload } from '@lucide/vue'
import { computed, ref, shallowRef } from 'vue'
import SeverityMark from './SeverityMark.vue'

const props = defineProps<{
  /** What the file holds: one and many. */
  one: string
  many: string
  /** Where the file is looked through. */
  url: string
  /** A small file to fill in. */
  sample?: string
}>()
/** A line of the file, and what it holds where nothing is wrong with it. */
interface Row {
  line: number
  name: string
  /** What was read, in words. */
  says?: string
  problems: string[]
  [field: string]: unknown
}
const emit = defineEmits<{ take: [rows: Row[]] }>()
const picker = ref<HTMLInputElement | null>(null)
const rows = shallowRef<Row[] | null>(null)
/** The columns of the file, and as what each is read. */
const columns = shallowRef<{ heading: string; read_as: string }[]>([])
const guessed = computed(() =>
  columns.value.filter((c) => c.read_as && c.read_as.toLowerCase() !== c.heading.toLowerCase()),
)
const leftOut = computed(() => columns.value.filter((c) => !c.read_as).map((c) => c.heading))
const problem = ref('')
const good = computed(() => (rows.value ?? []).filter((r) => !r.problems.length))
const named = computed(() => `${props.many[0]!.toUpperCase()}${props.many.slice(1)}`)

async function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  problem.value = ''
  const response = await fetch(props.url, {
    method: 'POST',
    headers: { 'Content-Type': 'text/csv' },
    body: file,
  }).catch(() => null)
  const body = await response?.json().catch(() => null)
  if (response?.ok) {
    rows.value = body.rows
    columns.value = body.columns ?? []
  } else problem.value = problemsOf(body)[0]!.message
}

function take() {
  emit('take', good.value)
  rows.value = null
}
</script>

<template>
  <button type="button" class="btn" @click="picker?.click()">
    <Upload :size="16" aria-hidden="true" /> {{ phrase('shared.csv_import.csv', { named }) }}
  </button>
  <slot />
  <a v-if="sample" class="btn btn-quiet" :href="sample" download>{{
    phrase('shared.csv_import.sample')
  }}</a>
  <input
    ref="picker"
    type="file"
    accept=".csv,text/csv"
    class="sr-only"
    tabindex="-1"
    :aria-label="phrase('shared.csv_import.csv_file', { many })"
    @change="picked"
  />
  <p v-if="problem" class="basis-full text-blocking" role="alert">{{ problem }}</p>
  <DialogFrame
    :open="rows !== null"
    :title="phrase('shared.csv_import.file', { named })"
    class="max-w-2xl"
    @close="rows = null"
  >
    <p class="text-soft">
      {{
        phrase('shared.csv_import.added_others_left_out', {
          good: good.length,
          rows: rows?.length,
        })
      }}
    </p>
    <p v-if="guessed.length" class="mt-1 text-sm" data-guessed>
      <span v-for="(c, i) in guessed" :key="c.heading"
        >{{ i ? '; ' : ''
        }}{{
          phrase('shared.csv_import.read_as', { heading: c.heading, read_as: c.read_as })
        }}</span
      >.
    </p>
    <p v-if="leftOut.length" class="text-sm text-soft" data-left-out>
      {{ phrase('shared.csv_import.left_out', { headings: leftOut.join(', ') }) }}
    </p>
    <ul
      class="mt-3 grow divide-y divide-line overflow-y-auto"
      tabindex="0"
      :aria-label="phrase('shared.csv_import.lines_file')"
    >
      <li v-for="r in rows" :key="r.line" class="flex gap-2 py-1.5 leading-snug">
        <span class="w-16 shrink-0 text-soft">{{
          phrase('shared.csv_import.line', { line: r.line })
        }}</span>
        <SeverityMark v-if="r.problems.length" severity="blocking" class="mt-0.5 shrink-0" />
        <span class="min-w-0 break-words">
          {{ r.name || phrase('shared.csv_import.name') }}
          <span v-if="r.says" class="text-soft">{{ r.says }}</span>
          <span v-for="p in r.problems" :key="p" class="block text-blocking">{{ p }}</span>
        </span>
      </li>
    </ul>
    <div class="mt-4 flex gap-2">
      <button type="button" class="btn" @click="rows = null">
        {{ phrase('shared.csv_import.cancel') }}
      </button>
      <button type="button" class="btn btn-main ml-auto" :disabled="!good.length" @click="take">
        {{
          phrase('shared.csv_import.add', {
            good: good.length === 1 ? `1 ${one}` : `${good.length} ${many}`,
          })
        }}
      </button>
    </div>
  </DialogFrame>
</template>
