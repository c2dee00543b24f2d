/** Id of the bank that is in the rig now, beside the candidates. */
export const OLD = 'old'

/** Banks of one class share a colour and a line: where there are several, each has a number. */
export function numberOf(columns: { id: string; battery_class: string }[], id: string): string {
  const column = columns.find((c) => c.id === id)
  // The old bank is told by its thin line.
  if (id === OLD) return ''
  const same = columns.filter((c) => c.battery_class === column?.battery_class && c.id !== OLD)
  return same.length > 1 ? String(same.findIndex((c) => c.id === id) + 1) : ''
}
