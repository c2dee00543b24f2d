import { useReference } from '@/stores/reference'

/** Id of the bank that is in the rig now, beside the candidates. */
export const OLD = 'old'

/**
 * Banks of one class share a colour and a line: where there are several, each has its class code and a number,
 * at its line, in its mark and in the legend. Empty where there is one of its class.
 */
export function markOf(columns: { id: string; battery_class: string }[], id: string): string {
  const column = columns.find((c) => c.id === id)
  // The old bank is told by its thin line.
  if (id === OLD || !column) return ''
  const same = columns.filter((c) => c.battery_class === column.battery_class && c.id !== OLD)
  if (same.length < 2) return ''
  const code = useReference().classes.get(column.battery_class)?.code ?? ''
  return `${code}${same.findIndex((c) => c.id === id) + 1}`
}
