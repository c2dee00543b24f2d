<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import type { Stop } from '@/api/lists'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import DateField from '@/ui/DateField.vue'
import PlanField from '@/ui/PlanField.vue'
import SentenceText from '@/ui/SentenceText.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Check } from '@lucide/vue'
import { computed } from 'vue'
import { useChangeover } from './useChangeover'

/** Which bank is bought; and once it is chosen, what must be known before it is. */
const { plan, view, choose, tick, isTicked } = useChangeover()
const choices = computed(() =>
  [...view.value.choices].sort((a, b) => Number(b.verdict) - Number(a.verdict)),
)
const to = (stop: string, part: string) => ({
  name: 'rig',
  params: { id: plan.rig!.id, stop: stop as Stop },
  query: part ? { part } : {},
})
const open = computed(() => view.value.questions.filter((q) => !q.settled).length)
const DATES = [
  { path: '/changeover/return_by', label: phrase('changeover.choice.return_by') },
  { path: '/changeover/start_on', label: phrase('changeover.choice.start_on') },
]
const LENGTHS = [
  { path: '/changeover/reach_plus_mm', label: phrase('changeover.choice.reach_plus') },
  { path: '/changeover/need_plus_mm', label: phrase('changeover.choice.need_plus') },
  { path: '/changeover/reach_minus_mm', label: phrase('changeover.choice.reach_minus') },
  { path: '/changeover/need_minus_mm', label: phrase('changeover.choice.need_minus') },
]
</script>

<template>
  <template v-if="!view.chosen">
    <p class="mt-1 max-w-3xl text-pretty text-soft">{{ phrase('changeover.choice.intro') }}</p>
    <p v-if="view.gone" class="mt-3 flex gap-2" data-gone>
      <SeverityMark severity="caution" class="mt-0.5 shrink-0" />{{ view.gone }}
    </p>
    <ul v-if="choices.length" class="mt-4 space-y-3">
      <li
        v-for="c in choices"
        :key="c.id"
        class="sheet flex flex-wrap items-center gap-x-4 gap-y-2 px-5 py-3"
        :class="c.verdict ? 'border-sea' : ''"
        :data-choice="c.id"
      >
        <ChemistryMark :battery-class="c.battery_class" />
        <div class="min-w-0 grow basis-60">
          <p class="text-lg">
            <b class="font-serif">{{ c.title }}</b> · {{ c.layout }}
          </p>
          <p v-if="c.verdict" class="text-sm font-semibold text-sea">
            {{ phrase('changeover.choice.verdict') }}
          </p>
          <p v-else-if="c.against.length" class="leading-snug text-soft">
            <SentenceText :tokens="c.against" />
          </p>
        </div>
        <FigureLink
          :figure="c.outlay"
          :name="phrase('changeover.choice.outlay')"
          class="font-semibold"
        />
        <button
          type="button"
          class="btn"
          :class="c.verdict ? 'btn-main' : ''"
          :data-choose="c.id"
          @click="choose(c)"
        >
          {{ phrase('changeover.choice.buy') }}
        </button>
      </li>
    </ul>
    <p v-else class="mt-4 text-lg">{{ phrase('changeover.choice.none') }}</p>
  </template>
  <div v-else class="grid gap-x-8 gap-y-5 lg:grid-cols-[1.5fr_1fr]">
    <section>
      <h2 class="text-xl">
        {{ phrase('changeover.choice.questions') }}
        <span class="text-base font-normal text-soft">{{
          phrase('changeover.choice.open', { count: open })
        }}</span>
      </h2>
      <ul class="mt-2 divide-y divide-line">
        <li v-for="q in view.questions" :key="q.key" class="flex gap-3 py-2" :data-ask="q.key">
          <SeverityMark v-if="q.state === 'wrong'" severity="blocking" class="mt-1 shrink-0" />
          <Check
            v-else-if="q.state === 'known'"
            :size="18"
            class="mt-1 shrink-0 text-sea"
            :aria-label="phrase('changeover.choice.known')"
          />
          <input
            v-else
            type="checkbox"
            class="mt-1 size-4.5 shrink-0 accent-sea"
            :checked="isTicked(q.key)"
            :aria-label="q.title"
            @change="tick(q.key, q.title, !isTicked(q.key))"
          />
          <div class="min-w-0 leading-snug">
            <p class="font-semibold">{{ q.title }}</p>
            <p v-if="q.says" :class="q.state === 'wrong' ? 'text-blocking' : ''">{{ q.says }}</p>
            <p v-if="!q.settled" class="text-soft">
              {{ q.how }}
              <RouterLink v-if="q.stop" class="underline" :to="to(q.stop, q.part)">{{
                phrase('changeover.choice.in_plan')
              }}</RouterLink>
            </p>
          </div>
        </li>
      </ul>
    </section>
    <section class="sheet h-fit px-5 py-4">
      <h2 class="text-xl">{{ phrase('changeover.choice.dates') }}</h2>
      <div class="mt-2 grid gap-3 sm:grid-cols-2">
        <DateField v-for="d in DATES" :key="d.path" v-bind="d" />
        <PlanField path="/changeover/deposit" :label="phrase('changeover.choice.deposit')" />
      </div>
      <h2 class="mt-5 text-xl">{{ phrase('changeover.choice.cables') }}</h2>
      <div class="mt-2 grid items-end gap-3 sm:grid-cols-2">
        <PlanField v-for="l in LENGTHS" :key="l.path" v-bind="l" :unit="plan.rig!.units.mm" />
      </div>
    </section>
  </div>
</template>
