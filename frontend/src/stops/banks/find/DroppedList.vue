<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import DialogFrame from '@/ui/DialogFrame.vue'
import { ref, shallowRef } from 'vue'
import CheckList from '@/stops/banks/cards/CheckList.vue'
import { useModels } from '@/stops/banks/catalogue/useModels'

defineProps<{ dropped: Schemas['DroppedView'][] }>()
const plan = usePlan()
const reference = useReference()
const { ofClass } = useModels()
const why = shallowRef<Schemas['WhyView'] | null>(null)
const asked = ref('')

async function ask(model: string) {
  if (!model) return
  const params = { path: { rig_id: plan.rig!.id }, query: { model } }
  why.value = (await api.GET('/api/rigs/{rig_id}/why', { params })).data ?? null
  asked.value = ''
}
const ORDER = ['blocking', 'caution', 'note', 'unknown', 'ok']
const sorted = (checks: Schemas['CheckView'][]) =>
  [...checks].sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict))
</script>

<template>
  <section>
    <h2 class="text-xl">{{ phrase('banks.dropped_list.why_others') }}</h2>
    <label class="mt-2 block max-w-md">
      <span class="eyebrow mb-1 block">{{ phrase('banks.dropped_list.why') }}</span>
      <select v-model="asked" class="field" data-why @change="ask(asked)">
        <option value="">{{ phrase('banks.dropped_list.choose_battery') }}</option>
        <optgroup v-for="c in reference.data?.classes" :key="c.key" :label="c.name">
          <option v-for="m in ofClass(c.key)" :key="m.model" :value="m.model">
            {{ m.title }}
          </option>
        </optgroup>
      </select>
    </label>
    <ul class="mt-3 divide-y divide-line">
      <li v-for="d in dropped" :key="d.key" class="py-1.5" :data-dropped="d.key">
        <details>
          <summary class="leading-snug">
            <b>{{ d.count }}</b> · {{ d.says }}
          </summary>
          <p class="mt-1.5 ml-4 flex flex-wrap gap-x-3 gap-y-1 text-sm">
            <button
              v-for="m in d.models"
              :key="m.model"
              type="button"
              class="text-left text-sea underline underline-offset-4"
              @click="ask(m.model)"
            >
              {{ m.title }}
            </button>
          </p>
        </details>
      </li>
    </ul>
    <DialogFrame
      :open="why !== null"
      :title="why?.title ?? ''"
      crossed
      class="max-w-2xl"
      @close="why = null"
    >
      <template v-if="why">
        <p class="text-soft">
          {{ why.layout ? phrase('banks.dropped_list.checks', { layout: why.layout }) : why.unfit }}
        </p>
        <CheckList :checks="sorted(why.checks)" plain class="mt-2" />
      </template>
    </DialogFrame>
  </section>
</template>
