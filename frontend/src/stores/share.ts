/**
 * The new value with every part that did not change taken from the old one, so that only what really
 * changed is drawn again.
 */
export function share<T>(before: unknown, after: T): T {
  if (before === after || typeof before !== 'object' || typeof after !== 'object') return after
  if (!before || !after || Array.isArray(before) !== Array.isArray(after)) return after
  const from = before as Record<string, unknown>
  const to = after as Record<string, unknown>
  const keys = Object.keys(to)
  let same = keys.length === Object.keys(from).length
  for (const key of keys) {
    const shared = share(from[key], to[key])
    to[key] = shared
    if (shared !== from[key]) same = false
  }
  return same ? (before as T) : after
}
