import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import { usePlan } from '@/stores/plan'

/** Make a change that the program prepared, in one edit. */
export function send(label: string, operations: Schemas['OperationView'][]): Promise<void> {
  const plain = operations.map((o) => ({ op: o.op, path: o.path, value: o.value }))
  return usePlan().edit(label, ...plain)
}

/** Plan what a package does beside the bank. */
export const takePackage = (found: Schemas['BankPackageView']) =>
  send(phrase('compare.ladder_part.label'), found.take)
