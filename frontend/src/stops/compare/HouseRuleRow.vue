<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import FigureLink from '@/ui/FigureLink.vue'
import SentenceText from '@/ui/SentenceText.vue'
import { computed } from 'vue'

const plan = usePlan()
const { answer, asking } = useAsked<Schemas['RuleVerdictsView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/compare/house-rules', {
      signal,
      params: { path: { rig_id: plan.rig!.id } },
    }),
)
const apart = computed(() => answer.value?.verdicts.filter((s) => !s.same).length ?? 0)
</script>

<template>
  <section data-house-rules :aria-busy="asking">
    <p v-if="answer" class="max-w-3xl text-soft">
      {{
        apart
          ? phrase('compare.house_rule_row.experts_disagree_about_rig')
          : phrase('compare.house_rule_row.three_give_same_verdict')
      }}
    </p>
    <div v-if="answer" class="mt-3 grid gap-3 lg:grid-cols-3">
      <article
        v-for="s in answer.verdicts"
        :key="s.key"
        class="sheet p-4"
        :class="s.here ? 'outline-2 outline-sea' : ''"
        :data-house-rule="s.key"
      >
        <p class="eyebrow">{{ s.name }}{{ s.here ? phrase('compare.house_rule_row.use') : '' }}</p>
        <h3 class="mt-1 text-lg leading-snug"><SentenceText :tokens="s.headline" /></h3>
        <p class="mt-2 text-sm">
          {{ phrase('compare.house_rule_row.needs') }}
          <FigureLink :figure="s.need" class="font-semibold" />
          {{ phrase('compare.house_rule_row.between_charges')
          }}<template v-if="s.cost">
            {{ ' ' }}{{ phrase('compare.house_rule_row.costs') }}
            <FigureLink :figure="s.cost" class="font-semibold" /></template
          >.
        </p>
        <p class="mt-2 text-sm text-pretty text-soft">{{ s.argues }}</p>
        <details v-if="!s.same" class="mt-2 text-sm">
          <summary class="discloses">
            {{ phrase('compare.house_rule_row.why') }}
          </summary>
          <p class="mt-1 leading-snug">
            <template v-for="(c, i) in s.card" :key="i"
              ><SentenceText :tokens="c" />{{ ' ' }}</template
            >
          </p>
        </details>
      </article>
    </div>
    <p v-else class="mt-2 text-soft">
      {{ phrase('compare.house_rule_row.calculating_house_rule') }}
    </p>
  </section>
</template>
