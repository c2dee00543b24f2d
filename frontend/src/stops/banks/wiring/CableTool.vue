<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, problemsOf, type Schemas } from '@/api/client'
import { newest } from '@/stores/newest'
import { usePlan } from '@/stores/plan'
import ToolField from '@/ui/ToolField.vue'
import { computed, reactive, ref, shallowRef, watch } from 'vue'

const plan = usePlan()
const us = computed(() => plan.document.rig.units === 'us')
const wanted = reactive({
  amps: '150',
  length: us.value ? '5' : '1.5',
  volts: String(plan.document.rig.system_v),
  drop: '3 %',
  clad: false,
})
const FIELDS = computed(
  () =>
    [
      { key: 'amps', name: phrase('banks.cable_tool.current'), unit: 'A' },
      { key: 'length', name: phrase('banks.cable_tool.length_way'), unit: us.value ? 'ft' : 'm' },
      { key: 'volts', name: phrase('banks.cable_tool.voltage'), unit: 'V' },
      { key: 'drop', name: phrase('banks.cable_tool.voltage_drop_title'), unit: '' },
    ] as const,
)
const answer = shallowRef<Schemas['CableView'] | null>(null)
const problems = ref<Record<string, string>>({})

watch(
  [wanted, us],
  async () => {
    const body = { ...wanted, units: us.value ? 'us' : 'metric' }
    const told = await newest((signal) => api.POST('/api/cable', { signal, body }))
    if (!told) return
    const { data, error } = told
    if (data) answer.value = data
    problems.value = data
      ? {}
      : Object.fromEntries(problemsOf(error).map((p) => [p.path.slice(1), p.message]))
  },
  { immediate: true },
)
</script>

<template>
  <section class="sheet grid gap-6 p-5 md:grid-cols-2" data-cable>
    <div>
      <h2 class="text-xl">{{ phrase('banks.cable_tool.cable_fuse') }}</h2>
      <p class="text-pretty text-soft">
        {{ phrase('banks.cable_tool.charger_windlass_inverter') }}
      </p>
      <div class="mt-3 grid grid-cols-2 gap-3">
        <ToolField
          v-for="f in FIELDS"
          :key="f.key"
          v-model="wanted[f.key]"
          :label="f.name"
          :unit="f.unit"
          :problem="problems[f.key]"
          :data="f.key"
          :help="`cable/${f.key}`"
        />
        <label class="col-span-2 flex items-center gap-2">
          <input v-model="wanted.clad" type="checkbox" class="size-4.5 accent-sea" />
          {{ phrase('banks.cable_tool.copper_clad_aluminium_instead') }}
        </label>
      </div>
      <p v-if="answer" class="mt-4 text-2xl font-semibold" aria-live="polite" data-cable-size>
        <template v-if="answer.size">
          {{ us ? answer.awg : answer.size }}
          <span class="text-base font-normal text-soft">{{
            phrase('banks.cable_tool.fuse_loses', {
              us: us ? answer.size : answer.awg,
              fuse: answer.fuse,
              drop: answer.drop,
            })
          }}</span>
        </template>
        <template v-else>{{ phrase('banks.cable_tool.single_cable_large_enough') }}</template>
      </p>
      <p v-if="answer" class="mt-1 text-pretty text-soft">{{ answer.says }}</p>
    </div>
    <div v-if="answer" class="min-w-0">
      <div
        class="relative max-h-80 overflow-y-auto"
        tabindex="0"
        role="region"
        :aria-label="phrase('banks.cable_tool.sizes')"
      >
        <table class="w-full text-sm">
          <thead>
            <tr class="text-left text-soft">
              <th class="py-1 font-semibold">{{ phrase('banks.cable_tool.size') }}</th>
              <th class="font-semibold">AWG</th>
              <th class="text-right font-semibold">
                {{ phrase('banks.cable_tool.current_rating') }}
              </th>
              <th class="text-right font-semibold">
                {{ phrase('banks.cable_tool.voltage_drop') }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="r in answer.rows"
              :key="r.size"
              class="border-t border-line"
              :class="r.chosen ? 'bg-wash font-semibold' : ''"
            >
              <td class="py-1">{{ r.size }}</td>
              <td>{{ r.awg.replace('AWG ', '') }}</td>
              <td class="text-right">{{ r.carries }}</td>
              <td class="text-right">{{ r.drop }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="mt-2 text-sm text-soft">
        {{ phrase('banks.cable_tool.bundles_conduit_engine_room', { source: answer.source }) }}
      </p>
    </div>
  </section>
</template>
