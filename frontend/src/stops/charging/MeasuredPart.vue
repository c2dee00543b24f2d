<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import { api, problemsOf, type Schemas } from '@/api/client'
import { newest } from '@/stores/newest'
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
  phrase('charging.measured_part.january'),
  phrase('charging.measured_part.february'),
  phrase('charging.measured_part.march'),
  phrase('charging.measured_part.april'),
  phrase('charging.measured_part.may'),
  phrase('charging.measured_part.june'),
  phrase('charging.measured_part.july'),
  phrase('charging.measured_part.august'),
  phrase('charging.measured_part.september'),
  phrase('charging.measured_part.october'),
  phrase('charging.measured_part.november'),
  phrase('charging.measured_part.december'),
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
    const told = await newest((signal) =>
      api.GET('/api/rigs/{rig_id}/charging/measured', {
        signal,
        params: { path: { rig_id: plan.rig!.id }, query: { ...seen } },
      }),
    )
    if (!told) return
    const { data, error } = told
    answer.value = data ?? null
    problems.value = data
      ? {}
      : Object.fromEntries(problemsOf(error).map((p) => [p.path.slice(1), p.message]))
  },
  { deep: true },
)

function take() {
  const told = answer.value
  if (told) plan.edit(phrase('charging.measured_part.charge_measured'), ...told.operations)
}
</script>

<template>
  <p class="mb-4 max-w-3xl text-pretty text-soft">
    {{ phrase('charging.measured_part.measure_charging_current_once') }}
  </p>
  <p v-if="!sources.length || !banks.length" class="text-soft">
    {{ phrase('charging.measured_part.enter_source_add_bank') }}
  </p>
  <section v-else class="sheet grid gap-6 p-5 md:grid-cols-2" data-measured>
    <div class="grid grid-cols-2 content-start gap-3">
      <label class="col-span-2">
        <span class="eyebrow mb-1 block">{{ phrase('charging.measured_part.source') }}</span>
        <select v-model="seen.source" class="field" data-measured-source>
          <option v-for="s in sources" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select>
      </label>
      <label class="col-span-2">
        <span class="eyebrow mb-1 block">{{ phrase('charging.measured_part.bank') }}</span>
        <select v-model="seen.candidate" class="field">
          <option v-for="b in banks" :key="b.id" :value="b.id">
            {{ b.title }}, {{ b.layout }}
          </option>
          <option v-if="plan.document.old_bank" value="old">
            {{ phrase('charging.measured_part.old_bank') }}
          </option>
        </select>
      </label>
      <ToolField
        v-model="seen.amps"
        :label="phrase('charging.measured_part.measured')"
        unit="A"
        :problem="problems.amps"
        data="amps"
        help="charge/amps"
      />
      <ToolField
        v-model="seen.volts"
        :label="phrase('charging.measured_part.battery')"
        unit="V"
        :problem="problems.volts"
        data="volts"
        help="charge/volts"
      />
      <ToolField
        v-model="seen.soc"
        :label="phrase('charging.measured_part.state_charge')"
        unit="%"
        :problem="problems.soc"
        data="soc"
        help="charge/soc"
      />
      <template v-if="sun">
        <ToolField
          v-model="seen.hour"
          :label="phrase('charging.measured_part.at')"
          :problem="problems.hour"
          data="hour"
          help="charge/hour"
        />
        <label class="col-span-2">
          <span class="eyebrow mb-1 block">{{ phrase('charging.measured_part.month') }}</span>
          <select v-model.number="seen.month" class="field">
            <option v-for="(m, i) in MONTHS" :key="m" :value="i + 1">{{ m }}</option>
          </select>
        </label>
        <p class="col-span-2 text-sm text-soft">
          {{ phrase('charging.measured_part.clear_sky_standard_time') }}
        </p>
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
      <p v-else class="text-soft">
        {{ phrase('charging.measured_part.enter_measured_see_explanation') }}
      </p>
    </div>
  </section>
</template>
