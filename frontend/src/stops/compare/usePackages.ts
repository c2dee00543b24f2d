import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { watch } from 'vue'

/** Banks with what is done beside them: looked for once the hand rests. */
export function usePackages() {
  const plan = usePlan()
  const asked = useAsked<Schemas['PackagesView']>(
    () => '',
    (signal) =>
      api.GET('/api/rigs/{rig_id}/compare/packages', {
        signal,
        params: { path: { rig_id: plan.rig!.id } },
      }),
  )
  // The strip says the same as the screen once packages were looked for.
  watch(asked.answer, (found) => {
    const figure = plan.rig?.strip.find((s) => s.stop === 'compare')
    if (figure && found) figure.figure = found.strip
  })
  return asked
}
