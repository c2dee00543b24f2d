import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { ref } from 'vue'

/** What the Charging stop asks for apart from the plan. */
export function useCharging() {
  const plan = usePlan()
  const candidate = ref('')
  const asked = useAsked<Schemas['ChargingView']>(
    () => candidate.value,
    (signal) =>
      api.GET('/api/rigs/{rig_id}/charging', {
        signal,
        params: { path: { rig_id: plan.rig!.id }, query: { candidate: candidate.value } },
      }),
  )
  return { ...asked, candidate }
}
