import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'

/** Banks with what is done beside them: looked for once the hand rests. */
export function usePackages() {
  const plan = usePlan()
  return useAsked<Schemas['PackagesView']>(
    () => '',
    (signal) =>
      api.GET('/api/rigs/{rig_id}/compare/packages', {
        signal,
        params: { path: { rig_id: plan.rig!.id } },
      }),
  )
}
