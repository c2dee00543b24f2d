import type { Schemas } from '@/api/client'
import type { usePlan } from '@/stores/plan'
import type { useUi } from '@/stores/ui'

/** Tries a change beside the plan, so that it can be dropped again. */
export async function tryInPlan(
  plan: ReturnType<typeof usePlan>,
  ui: ReturnType<typeof useUi>,
  label: string,
  operations: Schemas['OperationView'][],
  said: string,
) {
  if (!plan.rig!.what_if) await plan.whatIf()
  await plan.edit(label, ...(operations as Parameters<typeof plan.edit>[1][]))
  ui.say(said)
}
