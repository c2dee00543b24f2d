import { api, type Schemas } from '@/api/client'
import { usePlan } from './plan'
import { useAsked } from './useAsked'

/** What the log found that the plan does not know. */
export function useLogFound() {
  const plan = usePlan()
  return useAsked<Schemas['LogFoundView']>(
    () => '',
    (signal) =>
      api.GET('/api/rigs/{rig_id}/log/found', {
        signal,
        params: { path: { rig_id: plan.rig!.id } },
      }),
  ).answer
}
