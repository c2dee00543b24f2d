import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { computed, ref, watch } from 'vue'

export type BankRun = Schemas['BankRunView']
/** So many banks are drawn at once; more cannot be told apart. */
const MOST_DRAWN = 3

/** The run, which of its banks are looked at, and the moment that is looked at. */
export function useRun() {
  const plan = usePlan()
  const { answer } = useAsked<Schemas['TrialRunView']>(
    () => '',
    (signal) =>
      api.GET('/api/rigs/{rig_id}/trial', { signal, params: { path: { rig_id: plan.rig!.id } } }),
  )
  const hand = ref<string[]>([])
  const moment = ref(0)

  const banks = computed<BankRun[]>(() => answer.value?.banks ?? [])
  const drawn = computed(() => {
    const kept = hand.value.filter((id) => banks.value.some((l) => l.id === id))
    if (kept.length) return kept
    return answer.value?.drawn ?? []
  })
  /** The bank whose flows and events are told: the one picked last. */
  const focus = computed(() => drawn.value.at(-1) ?? '')
  const steps = computed(() => banks.value[0]?.volts.length ?? 0)

  function choose(id: string) {
    const rest = drawn.value.filter((d) => d !== id)
    if (id === focus.value && rest.length) hand.value = rest
    else hand.value = [...rest, id].slice(-MOST_DRAWN)
  }

  function look(step: number) {
    moment.value = Math.max(0, Math.min(steps.value - 1, step))
  }

  watch(answer, (now, before) => {
    // Another stretch begins where something first happens.
    if (!now || (before && before.says === now.says && moment.value < steps.value)) return
    const bank = now.banks.find((l) => l.id === focus.value)
    moment.value = bank?.events.find((e) => e.severity === 'blocking')?.step ?? 72
  })

  return { answer, banks, drawn, focus, choose, moment, look, steps }
}
