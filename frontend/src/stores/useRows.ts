import type { Operation } from '@/api/client'
import { usePlan } from './plan'

interface Row {
  id: string
}

/** Ids that no row has: a prefix, and the first numbers that are free. */
export function freshIds(
  rows: Iterable<Row>,
  prefix: string,
  from: number,
  count: number,
): string[] {
  const taken = new Set([...rows].map((row) => row.id))
  const out: string[] = []
  for (let n = from; out.length < count; n++) {
    if (!taken.has(`${prefix}${n}`)) out.push(`${prefix}${n}`)
  }
  return out
}

/** The rows of a list of the rig: put in, changed, taken out. Each is one step to undo. */
export function useRows(at: () => string, rows: () => readonly Row[]) {
  const plan = usePlan()
  const adding = (value: object): Operation => ({ op: 'add', path: `${at()}/-`, value })

  return {
    adding,
    fresh: (prefix: string, from = rows().length + 1) => freshIds(rows(), prefix, from, 1)[0]!,
    add: (label: string, ...values: object[]) => plan.edit(label, ...values.map(adding)),
    change: (label: string, index: number, field: string, value: unknown) =>
      plan.edit(label, { op: 'replace', path: `${at()}/${index}/${field}`, value }),
    /** Remove a row together with other edits that belong to it. */
    remove: (label: string, index: number, ...first: Operation[]) =>
      plan.edit(label, ...first, { op: 'remove', path: `${at()}/${index}` }),
  }
}
