<script setup lang="ts">
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'
import { ArrowRight } from '@lucide/vue'
import { computed } from 'vue'
import { useRouter } from 'vue-router'

/** Buy the verdict's bank: the choice is made, and the changeover opens. */
const plan = usePlan()
const router = useRouter()
const verdict = computed(() => plan.rig!.compare.verdict)
const to = computed(() => ({ name: 'rig', params: { id: plan.rig!.id, stop: 'changeover' } }))

async function buy() {
  const operations = verdict.value.buying.map((o) => ({ op: o.op, path: o.path, value: o.value }))
  await plan.edit(phrase('compare.buy_button.buy'), ...operations)
  await router.push(to.value)
}
</script>

<template>
  <RouterLink
    v-if="plan.document.changeover.chosen"
    class="btn btn-main"
    :to="to"
    data-to-changeover
  >
    {{ phrase('compare.buy_button.on') }} <ArrowRight :size="16" aria-hidden="true" />
  </RouterLink>
  <button
    v-else-if="verdict.buying.length"
    type="button"
    class="btn btn-main"
    data-buy
    @click="buy"
  >
    {{ phrase('compare.buy_button.buy') }}
  </button>
</template>
