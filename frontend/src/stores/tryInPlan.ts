import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/log'
import type { usePlan } from '@/stores/plan'
import type { useUi } from '@/stores/ui'

/** Tries what the log says beside the plan, so that it can be dropped again. */
export async function tryInPlan(
  plan: ReturnType<typeof usePlan>,
  ui: ReturnType<typeof useUi>,
  label: string,
  operations: Schemas['OperationView'][],
) {
  if (!plan.rig!.what_if) await plan.whatIf()
  await plan.edit(label, ...(operations as Parameters<typeof plan.edit>[1][]))
  ui.say(phrase('log.use.tried'))
}
