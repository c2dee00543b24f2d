<script setup lang="ts">
import { phrase } from '@/phrases/changeover'
import OfflineBar from '@/ui/OfflineBar.vue'
import UnsentBar from '@/ui/UnsentBar.vue'
import { ArrowLeft, ArrowRight, X } from '@lucide/vue'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import MeterPanel from './MeterPanel.vue'
import StepCard from './StepCard.vue'
import { useChangeover } from './useChangeover'

/** One step at a time in large type, for a phone in the locker; the step stays over a reload. */
const { plan, view, steps } = useChangeover()
const route = useRoute()
const router = useRouter()
const heading = ref<HTMLElement | null>(null)
const at = computed(() =>
  Math.max(
    0,
    steps.value.findIndex((s) => s.key === route.query.step),
  ),
)
const step = computed(() => steps.value[at.value]!)
const gate = computed(() => view.value.gates.find((g) => g.key === step.value.gate)!)
/** A gate that is stopped lets nobody through to the next one. */
const held = computed(
  () => gate.value.stopped && steps.value[at.value + 1]?.gate !== step.value.gate,
)

const query = (key?: string) => ({ part: 'work', ...(key ? { step: key } : {}) })
const to = (key?: string) => ({
  name: 'rig',
  params: { id: plan.rig!.id, stop: 'changeover' },
  query: query(key),
})
function move(by: number) {
  const next = steps.value[at.value + by]
  if (next && !(by > 0 && held.value)) void router.replace(to(next.key))
}

watch(
  () => step.value.key,
  async () => {
    await nextTick()
    heading.value?.focus()
    heading.value?.scrollIntoView({ block: 'start' })
  },
)

/** The screen stays on while somebody works, where the browser can do that. */
let lock: { release: () => Promise<void> } | null = null
async function keepAwake() {
  if (document.visibilityState === 'visible')
    lock = await navigator.wakeLock?.request('screen').catch(() => null)
}
onMounted(() => {
  document.body.style.overflow = 'hidden'
  document.addEventListener('visibilitychange', keepAwake)
  void keepAwake()
  heading.value?.focus()
})
onBeforeUnmount(() => {
  document.body.style.overflow = ''
  document.removeEventListener('visibilitychange', keepAwake)
  void lock?.release()
})
</script>

<template>
  <div
    class="fixed inset-0 z-40 flex flex-col bg-paper"
    role="dialog"
    aria-modal="true"
    :aria-label="phrase('changeover.locker.title')"
    data-locker
    @keydown.esc="router.replace(to())"
  >
    <header class="flex items-center gap-3 border-b border-line px-4 py-2">
      <p class="min-w-0 grow leading-tight">
        <span class="block text-sm text-soft">{{ gate.title }}</span>
        {{ phrase('changeover.locker.step', { at: at + 1, total: steps.length }) }}
      </p>
      <RouterLink
        class="btn btn-quiet btn-icon"
        :to="to()"
        replace
        :aria-label="phrase('changeover.locker.leave')"
        data-leave
      >
        <X :size="20" />
      </RouterLink>
    </header>
    <OfflineBar />
    <UnsentBar />
    <div class="grow overflow-y-auto px-4 pt-3 pb-6">
      <div class="mx-auto max-w-2xl">
        <h2
          ref="heading"
          tabindex="-1"
          class="mb-2 text-2xl leading-tight focus:outline-none"
          data-locker-heading
        >
          {{ step.title }}
        </h2>
        <StepCard :key="step.key" :step="step" large />
        <MeterPanel class="mt-5" />
      </div>
    </div>
    <p v-if="held" class="border-t border-line bg-well px-4 py-2 text-blocking" role="status">
      {{ phrase('changeover.locker.held') }}
    </p>
    <footer class="grid grid-cols-2 gap-3 border-t border-line p-3">
      <button
        type="button"
        class="btn min-h-14 text-lg"
        :disabled="at === 0"
        data-back
        @click="move(-1)"
      >
        <ArrowLeft :size="20" aria-hidden="true" /> {{ phrase('changeover.locker.back') }}
      </button>
      <button
        type="button"
        class="btn btn-main min-h-14 text-lg"
        :disabled="at === steps.length - 1 || held"
        data-next-step
        @click="move(1)"
      >
        {{ phrase('changeover.locker.next') }} <ArrowRight :size="20" aria-hidden="true" />
      </button>
    </footer>
  </div>
</template>
