import { api } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { computed } from 'vue'

/** What is not stated of the rig, and how far each of it could move the answer. */
export function useOpenTopics() {
  const plan = usePlan()
  const { answer, asking } = useAsked(
    () => '',
    (signal) =>
      api.GET('/api/rigs/{rig_id}/compare/open', {
        params: { path: { rig_id: plan.rig!.id } },
        signal,
      }),
  )
  const open = computed(() => plan.rig!.topics.filter((t) => t.status !== 'stated'))
  /** Until it is tried, anything that is not stated could turn it; the old bank is no reason for another one. */
  const provisional = computed(
    () => answer.value?.provisional ?? open.value.some((t) => t.key !== 'old_bank'),
  )
  const effects = computed(() => new Map(answer.value?.topics.map((t) => [t.key, t])))
  const ordered = computed(() => {
    const place = new Map(answer.value?.topics.map((t, i) => [t.key, i]))
    return [...open.value].sort((a, b) => (place.get(a.key) ?? 99) - (place.get(b.key) ?? 99))
  })
  const asks = computed(() => open.value.find((t) => t.key === answer.value?.asks))
  return { answer, asking, open, ordered, effects, provisional, asks }
}

export type OpenTopics = ReturnType<typeof useOpenTopics>
