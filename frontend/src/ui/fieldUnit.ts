import { BY_NAME, UNITS } from '@/api/lists'

const NAMED = new Set<string>(BY_NAME)

/** Which field a JSON pointer of a rig means, numbers and keys of rows left out: `day.loads.on.hours`. */
export function placeOf(pointer: string): string {
  const parts = pointer.replace(/^\//, '').split('/')
  return parts
    .filter((part, i) => !/^\d+$/.test(part) && (i === 0 || !NAMED.has(parts[i - 1]!)))
    .join('.')
}

/** What stands beside the input of a field, in the owner's units; nothing for a share or a count. */
export function unitBeside(pointer: string, owners: Record<string, string>): string | undefined {
  const stored = UNITS[placeOf(pointer)]
  return stored === undefined ? undefined : (owners[stored] ?? stored) || undefined
}
