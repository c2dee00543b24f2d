<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, problemsOf, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed, onMounted, reactive, ref, useId } from 'vue'
import { freshId, now, type Entry, type Waiting } from './useLog'

/** An entry by its fields: a new one, or one that is changed. */
const props = defineProps<{ view: Schemas['LogView']; entry: Entry | null }>()
const emit = defineEmits<{ saved: []; cancel: []; waits: [entry: Waiting] }>()
const plan = usePlan()
const id = useId()
const first = ref<HTMLSelectElement | null>(null)
onMounted(() => first.value?.focus())

const start = props.entry ?? { ...now(), kind: 'reading', bank: 'present', battery: 0 }
const local = new Date((start.at + 60 * start.offset_min) * 1000).toISOString().slice(0, 16)
const form = reactive({
  kind: start.kind,
  bank: start.bank,
  battery: start.battery ? String(start.battery) : '',
  when: local,
  values: { ...(props.entry?.values ?? {}) } as Record<string, string>,
  rested: props.entry?.rested ?? false,
  frozen: props.entry?.frozen ?? false,
  source: props.entry?.source ?? '',
  text: props.entry?.text ?? '',
})
/** One id however often it is sent. */
const entryId = props.entry?.id ?? freshId()
const problems = ref<Record<string, string>>({})
const asked = computed(() => props.view.kinds.find((k) => k.key === form.kind)?.fields ?? [])
/** What the kind is asked for, and what else the entry says. */
const fields = computed(() =>
  props.view.fields.filter((f) => asked.value.includes(f.key) || form.values[f.key]),
)

/** The entry in a line, as long as it waits. */
function summary() {
  const named = props.view.kinds.find((k) => k.key === form.kind)?.name ?? form.kind
  const values = props.view.fields.map((f) => {
    const typed = form.values[f.key]?.trim()
    return typed ? `${typed} ${f.unit}`.trim() : ''
  })
  return [named, ...values, form.text].filter(Boolean).join(', ')
}

async function save() {
  const at = Math.floor(new Date(`${form.when}Z`).getTime() / 1000) - 60 * start.offset_min
  const body = {
    revision: props.entry?.revision ?? 0,
    clock: now().at,
    // A time that was not touched keeps its seconds.
    at: form.when === local ? start.at : Number.isFinite(at) ? at : start.at,
    offset_min: start.offset_min,
    kind: form.kind,
    bank: form.bank,
    battery: Number(form.battery) || 0,
    values: { ...form.values },
    rested: form.rested || null,
    frozen: form.frozen || null,
    source: form.source,
    text: form.text,
  }
  const answer = await api
    .PUT('/api/rigs/{rig_id}/log/{entry_id}', {
      params: { path: { rig_id: plan.rig!.id, entry_id: entryId } },
      body,
    })
    .catch(() => undefined)
  if (answer?.data) return emit('saved')
  // A new one that nobody answers waits in the browser, as lines do.
  if (!props.entry && (!answer || answer.response.status >= 500))
    return emit('waits', { id: entryId, line: summary(), form: body, ...body })
  problems.value = Object.fromEntries(
    problemsOf(answer?.error).map((p) => [p.path.replace('/', ''), p.message]),
  )
}
</script>

<template>
  <form class="sheet px-5 py-4" data-entry-form @submit.prevent="save">
    <h2 class="text-xl">{{ entry ? phrase('log.form.change') : phrase('log.form.new') }}</h2>
    <div class="mt-2 grid items-start gap-3 sm:grid-cols-2 lg:grid-cols-4">
      <label class="block">
        <span class="eyebrow mb-1 block">{{ phrase('log.form.kind') }}</span>
        <select ref="first" v-model="form.kind" class="field" name="kind">
          <option v-for="k in view.kinds" :key="k.key" :value="k.key">{{ k.name }}</option>
        </select>
      </label>
      <label class="block">
        <span class="eyebrow mb-1 block">{{ phrase('log.form.bank') }}</span>
        <select v-model="form.bank" class="field" name="bank">
          <option v-for="b in view.banks" :key="b.key" :value="b.key">{{ b.name }}</option>
        </select>
      </label>
      <label class="block">
        <span class="eyebrow mb-1 block">{{ phrase('log.form.battery') }}</span>
        <input v-model="form.battery" class="field" name="battery" inputmode="numeric" />
      </label>
      <label class="block">
        <span class="eyebrow mb-1 block">{{ phrase('log.form.when') }}</span>
        <input v-model="form.when" class="field" type="datetime-local" name="when" />
        <span v-if="problems.at" class="mt-1 block text-sm text-blocking" role="alert">{{
          problems.at
        }}</span>
      </label>
      <label v-for="f in fields" :key="f.key" class="block" :for="`${id}-${f.key}`">
        <span class="eyebrow mb-1 block">{{ f.label }} [{{ f.unit }}]</span>
        <input
          :id="`${id}-${f.key}`"
          v-model="form.values[f.key]"
          class="field"
          :name="f.key"
          autocomplete="off"
          :aria-invalid="Boolean(problems[f.key])"
        />
        <span v-if="problems[f.key]" class="mt-1 block text-sm text-blocking" role="alert">{{
          problems[f.key]
        }}</span>
      </label>
      <label v-if="asked.includes('source')" class="block">
        <span class="eyebrow mb-1 block">{{ phrase('log.form.source') }}</span>
        <select v-model="form.source" class="field" name="source">
          <option value="">{{ phrase('log.form.none') }}</option>
          <option v-for="s in view.sources" :key="s.key" :value="s.key">{{ s.name }}</option>
        </select>
      </label>
    </div>
    <label v-if="asked.includes('rested')" class="mt-3 flex items-center gap-2">
      <input v-model="form.rested" type="checkbox" class="size-4.5 accent-sea" name="rested" />
      {{ phrase('log.form.rested') }}
    </label>
    <label v-if="asked.includes('frozen')" class="mt-3 flex items-center gap-2">
      <input v-model="form.frozen" type="checkbox" class="size-4.5 accent-sea" name="frozen" />
      {{ phrase('log.form.frozen') }}
    </label>
    <label class="mt-3 block">
      <span class="eyebrow mb-1 block">{{ phrase('log.form.text') }}</span>
      <input v-model="form.text" class="field" name="text" maxlength="2000" />
    </label>
    <p
      v-for="key in ['', 'text', 'kind', 'bank', 'values'].filter((k) => problems[k])"
      :key="key"
      class="mt-2 text-blocking"
      role="alert"
    >
      {{ problems[key] }}
    </p>
    <div class="mt-4 flex gap-3">
      <button type="submit" class="btn btn-main">{{ phrase('log.form.save') }}</button>
      <button type="button" class="btn" @click="$emit('cancel')">
        {{ phrase('log.form.cancel') }}
      </button>
    </div>
  </form>
</template>
