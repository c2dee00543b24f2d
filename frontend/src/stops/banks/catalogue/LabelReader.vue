<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, problemsOf, type Schemas } from '@/api/client'
import { newest } from '@/stores/newest'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useUi } from '@/stores/ui'
import ToolField from '@/ui/ToolField.vue'
import DialogFrame from '@/ui/DialogFrame.vue'
import { computed, reactive, ref, watch } from 'vue'

const ui = useUi()
const plan = usePlan()
const reference = useReference()
const label = reactive({
  battery_class: 'agm',
  volts: '12',
  ah: '',
  hours: '',
  ah_2: '',
  hours_2: '',
  reserve_minutes: '',
  wh: '',
  cycles: '',
  cycles_at_dod: '',
})
type Field = keyof typeof label
const FIELDS: { key: Field; name: string; unit: string; hint?: string }[] = [
  { key: 'volts', name: phrase('banks.label_reader.voltage'), unit: 'V' },
  { key: 'wh', name: phrase('banks.label_reader.energy'), unit: 'Wh' },
  { key: 'ah', name: phrase('banks.label_reader.capacity'), unit: 'Ah' },
  {
    key: 'hours',
    name: phrase('banks.label_reader.over'),
    unit: 'h',
    hint: phrase('banks.label_reader.c20'),
  },
  { key: 'ah_2', name: phrase('banks.label_reader.second_capacity'), unit: 'Ah' },
  { key: 'hours_2', name: phrase('banks.label_reader.over'), unit: 'h' },
  { key: 'cycles', name: phrase('banks.label_reader.cycles'), unit: '' },
  {
    key: 'cycles_at_dod',
    name: phrase('banks.label_reader.depth_discharge'),
    unit: '',
    hint: '50 %',
  },
  { key: 'reserve_minutes', name: phrase('banks.label_reader.reserve_25'), unit: 'min' },
]
const result = ref<Schemas['LabelView'] | null>(null)
const problems = ref<Record<string, string>>({})
const empty = computed(() => !label.ah && !label.wh && !label.reserve_minutes)

watch([label, () => ui.labelShown], async () => {
  if (!ui.labelShown || empty.value) {
    result.value = null
    problems.value = {}
    return
  }
  const house_rule = plan.document?.plan.house_rule ?? 'customary'
  const body = { ...label, house_rule } as Schemas['LabelText']
  const told = await newest((signal) => api.POST('/api/label', { signal, body }))
  if (!told) return
  const { data, error } = told
  if (data) {
    result.value = data
    problems.value = {}
  } else {
    problems.value = Object.fromEntries(problemsOf(error).map((p) => [p.path.slice(1), p.message]))
  }
})
</script>

<template>
  <DialogFrame
    :open="ui.labelShown"
    :title="phrase('banks.label_reader.read_battery_label')"
    crossed
    class="max-w-3xl"
    @close="ui.labelShown = false"
  >
    <p class="text-soft">{{ phrase('banks.label_reader.enter_label_shows_leave') }}</p>
    <div class="mt-6 grid gap-6 md:grid-cols-2">
      <div class="grid grid-cols-2 content-start gap-3">
        <label class="col-span-2">
          <span class="eyebrow mb-1 block">{{ phrase('banks.label_reader.class') }}</span>
          <select v-model="label.battery_class" class="field">
            <option v-for="c in reference.data?.classes" :key="c.key" :value="c.key">
              {{ c.name }}
            </option>
          </select>
        </label>
        <ToolField
          v-for="f in FIELDS"
          :key="f.key"
          v-model="label[f.key]"
          :label="f.name"
          :unit="f.unit"
          :hint="f.hint"
          :problem="problems[f.key]"
          :data="f.key"
          :help="`label/${f.key}`"
        />
      </div>
      <div aria-live="polite" data-label-result>
        <dl v-if="result" class="divide-y divide-line">
          <div v-for="f in result.figures" :key="f.name" class="py-2">
            <div class="flex items-baseline justify-between gap-4">
              <dt>{{ f.name }}</dt>
              <dd class="text-lg font-semibold whitespace-nowrap">{{ f.text }}</dd>
            </div>
            <p class="text-sm text-soft">{{ f.source }}</p>
          </div>
        </dl>
        <p v-else class="text-soft">
          {{ phrase('banks.label_reader.enter_capacity_reserve_minutes') }}
        </p>
        <ul v-if="result?.remarks.length" class="mt-3 space-y-2">
          <li
            v-for="r in result.remarks"
            :key="r"
            class="border-l-2 border-caution pl-3 leading-snug"
          >
            {{ r }}
          </li>
        </ul>
      </div>
    </div>
  </DialogFrame>
</template>
