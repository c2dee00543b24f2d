import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'

/** How sure the answer is, and what would change it. */
export function useDoubt() {
  const plan = usePlan()
  return useAsked<Schemas['DoubtView']>(
    () => '',
    (signal) =>
      api.GET('/api/rigs/{rig_id}/compare/doubt', {
        signal,
        params: { path: { rig_id: plan.rig!.id } },
      }),
  )
}

/** At which nights a year the verdict itself changes. */
export function useTurns() {
  const plan = usePlan()
  return useAsked<Schemas['VerdictChangesView']>(
    () => '',
    (signal) =>
      api.GET('/api/rigs/{rig_id}/compare/turns', {
        signal,
        params: { path: { rig_id: plan.rig!.id } },
      }),
  )
}
