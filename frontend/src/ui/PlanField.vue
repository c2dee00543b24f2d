<script setup lang="ts">
import { usePlan } from '@/stores/plan'
import { computed, ref, useId, watch } from 'vue'
import { unitBeside } from './fieldUnit'
import InterpretationList from './InterpretationList.vue'
import TermText from './TermText.vue'

const props = defineProps<{
  /** JSON pointer of the value in the rig file. */
  path: string
  label: string
  /** How the edit is called in undo; the label if not given. */
  called?: string
  /** What stands beside it; by its path if not given. */
  unit?: string
  placeholder?: string
  hint?: string
  /** Value to show where the document holds none, e.g. an assumption's default. */
  fallback?: string
  /** In a table: the label is there for screen readers only. */
  bare?: boolean
  text?: boolean
  rows?: number
  /** Id of the element that shows what is wrong, where there is no room under the field. */
  problemsAt?: string
}>()

const plan = usePlan()
const id = useId()
const focused = ref(false)
const local = ref('')

const stored = computed(
  () => plan.drafts[props.path]?.text ?? plan.rig?.fields[props.path] ?? props.fallback ?? '',
)
const beside = computed(() => props.unit ?? unitBeside(props.path, plan.rig?.units ?? {}))
const shown = computed(() => (focused.value ? local.value : stored.value))
const problem = computed(() => plan.drafts[props.path]?.message ?? '')
const describedBy = computed(() => {
  if (problem.value) return props.problemsAt ?? `${id}-problem`
  return props.hint ? `${id}-hint` : undefined
})

// Undo takes back what stands in the field that is being typed into, too.
watch(
  () => plan.steps,
  () => (local.value = stored.value),
)

function focus(event: FocusEvent) {
  local.value = stored.value
  focused.value = true
  const field = event.target as HTMLInputElement
  if (!props.text) field.select?.()
}

function input(event: Event) {
  local.value = (event.target as HTMLInputElement).value
  plan.type(props.path, local.value, props.called ?? props.label)
}

function escape(event: KeyboardEvent) {
  if (!problem.value) return
  event.stopPropagation()
  plan.forget(props.path)
  local.value = plan.rig?.fields[props.path] ?? props.fallback ?? ''
}
</script>

<template>
  <div class="min-w-0">
    <label v-if="bare" :for="id" class="sr-only">{{ label }}</label>
    <label v-else :for="id" class="eyebrow mb-1 block"><TermText :text="label" label /></label>
    <div class="relative">
      <component
        :is="rows ? 'textarea' : 'input'"
        :id="id"
        class="field"
        :class="rows ? 'leading-snug' : ''"
        :style="beside && !text ? { paddingRight: `${beside.length * 0.5 + 1}rem` } : undefined"
        :value="shown"
        :rows="rows"
        :placeholder="placeholder"
        :inputmode="text ? undefined : 'text'"
        autocomplete="off"
        spellcheck="false"
        :data-path="path"
        :aria-invalid="problem ? 'true' : undefined"
        :aria-describedby="describedBy"
        @focus="focus"
        @blur="focused = false"
        @input="input"
        @keydown.esc="escape"
      />
      <span
        v-if="beside"
        class="pointer-events-none absolute inset-y-0 right-2 flex items-center text-sm text-soft"
        aria-hidden="true"
        >{{ beside }}</span
      >
    </div>
    <p
      v-if="problem && !problemsAt"
      :id="`${id}-problem`"
      class="mt-1 text-sm leading-snug text-blocking"
      role="alert"
    >
      {{ problem }}
      <InterpretationList :path="path" />
    </p>
    <p v-else-if="hint && !problem" :id="`${id}-hint`" class="mt-1 text-sm leading-snug text-soft">
      {{ hint }}
    </p>
  </div>
</template>
