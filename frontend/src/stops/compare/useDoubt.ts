import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'

/** How sure the answer is, and what would change it. */
export function useDoubt() {
  const plan = usePlan()
  return useAsked<Schemas['DoubtView']>(
    () => '',
    () =>
      api.GET('/api/rigs/{rig_id}/compare/doubt', { params: { path: { rig_id: plan.rig!.id } } }),
  )
}

/** At which nights a year the verdict itself changes. */
export function useTurns() {
  const plan = usePlan()
  return useAsked<Schemas['VerdictChangesView']>(
    () => '',
    () =>
      api.GET('/api/rigs/{rig_id}/compare/turns', { params: { path: { rig_id: plan.rig!.id } } }),
  )
}
