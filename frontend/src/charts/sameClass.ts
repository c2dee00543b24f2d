/** Banks of one class share a colour and a line: where there are several, each has a number. */
export function numberOf(columns: { id: string; battery_class: string }[], id: string): string {
  const column = columns.find((c) => c.id === id)
  const same = columns.filter((c) => c.battery_class === column?.battery_class)
  return same.length > 1 ? String(same.findIndex((c) => c.id === id) + 1) : ''
}
