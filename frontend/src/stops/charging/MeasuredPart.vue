<script setup lang="ts">
import { api, problemsOf, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import SentenceText from '@/ui/SentenceText.vue'
import ToolField from '@/ui/ToolField.vue'
import { computed, reactive, ref, shallowRef, watch } from 'vue'

const plan = usePlan()
const banks = computed(() => plan.rig!.banks.candidates.filter((c) => c.figures.usable_wh))
const sources = computed(() =>
  plan.rig!.sources.filter((s) => !['generator', 'upkeep'].includes(s.kind)),
)
const seen = reactive({
  candidate: banks.value[0]?.id ?? '',
  source: sources.value[0]?.id ?? '',
  amps: '',
  volts: '',
  soc: '',
  hour: '12:00',
  month: new Date().getMonth() + 1,
})
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]
const answer = shallowRef<Schemas['ExplainedView'] | null>(null)
const problems = ref<Record<string, string>>({})
const sun = computed(() => sources.value.find((s) => s.id === seen.source)?.kind === 'solar')

watch(
  [seen, () => plan.rig?.revision],
  async () => {
    if (!seen.amps.trim() || !seen.volts.trim() || !seen.soc.trim()) {
      answer.value = null
      problems.value = {}
      return
    }
    const { data, error } = await api.GET('/api/rigs/{rig_id}/charging/measured', {
      params: { path: { rig_id: plan.rig!.id }, query: { ...seen } },
    })
    answer.value = data ?? null
    problems.value = data
      ? {}
      : Object.fromEntries(problemsOf(error).map((p) => [p.path.slice(1), p.message]))
  },
  { deep: true },
)

function take() {
  const told = answer.value
  if (told) plan.edit('a charge as measured', ...told.operations)
}
</script>

<template>
  <p class="mb-4 max-w-3xl text-pretty text-soft">
    Hold a clamp meter to the charging cable once: what really comes tells a source’s limit, a thin
    cable, shade, or a battery that takes no more.
  </p>
  <p v-if="!sources.length || !banks.length" class="text-soft">
    Enter a source and put up the bank that was charged.
  </p>
  <section v-else class="sheet grid gap-6 p-5 md:grid-cols-2" data-measured>
    <div class="grid grid-cols-2 content-start gap-3">
      <label class="col-span-2">
        <span class="eyebrow mb-1 block">Source</span>
        <select v-model="seen.source" class="field" data-measured-source>
          <option v-for="s in sources" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select>
      </label>
      <label class="col-span-2">
        <span class="eyebrow mb-1 block">Into a bank such as</span>
        <select v-model="seen.candidate" class="field">
          <option v-for="b in banks" :key="b.id" :value="b.id">
            {{ b.title }}, {{ b.layout }}
          </option>
          <option v-if="plan.document.old_bank" value="old">The old bank</option>
        </select>
      </label>
      <ToolField
        v-model="seen.amps"
        label="Measured"
        unit="A"
        :problem="problems.amps"
        data="amps"
      />
      <ToolField
        v-model="seen.volts"
        label="at the battery"
        unit="V"
        :problem="problems.volts"
        data="volts"
      />
      <ToolField
        v-model="seen.soc"
        label="It was charged to"
        unit="%"
        :problem="problems.soc"
        data="soc"
      />
      <template v-if="sun">
        <ToolField v-model="seen.hour" label="at" :problem="problems.hour" data="hour" />
        <label class="col-span-2">
          <span class="eyebrow mb-1 block">in</span>
          <select v-model.number="seen.month" class="field">
            <option v-for="(m, i) in MONTHS" :key="m" :value="i + 1">{{ m }}</option>
          </select>
        </label>
        <p class="col-span-2 text-sm text-soft">Under a clear sky, in standard time.</p>
      </template>
    </div>
    <div aria-live="polite" data-measured-says>
      <template v-if="answer">
        <p class="text-lg leading-snug"><SentenceText :tokens="answer.says" plain /></p>
        <button
          v-if="answer.operations.length"
          type="button"
          class="btn btn-main mt-3"
          @click="take"
        >
          {{ answer.edit_says }}
        </button>
      </template>
      <p v-else class="text-soft">Enter what was measured; the difference is explained here.</p>
    </div>
  </section>
</template>
