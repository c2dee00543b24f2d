<script setup lang="ts">
import { phrase } from '@/phrases/charging'
import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { Check } from '@lucide/vue'

const props = defineProps<{ rungs: Schemas['RungView'][]; name: string }>()
const plan = usePlan()

function choose(rung: Schemas['RungView']) {
  const label = `${props.name}: ${rung.chosen ? phrase('charging.remedy_ladder.undo') : 'take'} “${rung.says}”`
  plan.edit(label, ...rung.operations)
}
</script>

<template>
  <ol class="mt-2 divide-y divide-line rounded-md bg-well">
    <li
      v-for="(r, i) in rungs"
      :key="r.key"
      class="grid grid-cols-[1.4rem_1fr] gap-x-2 gap-y-1 px-3 py-2 leading-snug sm:grid-cols-[1.4rem_1fr_auto]"
      :data-rung="r.key"
    >
      <span class="font-semibold text-soft">{{ i + 1 }}</span>
      <div>
        <p :class="r.chosen ? 'font-semibold' : ''">{{ r.says }}</p>
        <p class="text-sm text-soft">
          {{ r.price }}, {{ r.hours }}, {{ r.skill }}.
          <template v-if="r.hidden"
            >{{ phrase('charging.remedy_ladder.also_needed', { hidden: r.hidden }) }}
          </template>
          <template v-if="r.leaves"
            ><b class="font-semibold">{{ phrase('charging.remedy_ladder.still_open') }}</b>
            {{ r.leaves }}</template
          >
        </p>
      </div>
      <button
        type="button"
        class="btn self-start justify-self-start max-sm:col-start-2"
        :class="r.chosen ? 'btn-main' : ''"
        :aria-pressed="r.chosen"
        @click="choose(r)"
      >
        <Check v-if="r.chosen" :size="15" aria-hidden="true" />
        {{
          r.chosen
            ? phrase('charging.remedy_ladder.chosen')
            : phrase('charging.remedy_ladder.choose')
        }}
      </button>
    </li>
  </ol>
</template>
