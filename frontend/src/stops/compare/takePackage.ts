import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'

/** Plan what a package does beside the bank, in one edit. */
export function takePackage(found: Schemas['BankPackageView']): Promise<void> {
  const operations = found.take.map((o) => ({ op: o.op, path: o.path, value: o.value }))
  return usePlan().edit(phrase('compare.ladder_part.label'), ...operations)
}
