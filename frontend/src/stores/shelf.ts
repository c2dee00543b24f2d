import { computed, shallowReactive } from 'vue'

/**
 * A place in the browser where texts are kept by name. Where the browser gives none, or no more room, they are
 * held in memory for as long as the page is open.
 */
export function createShelf(open: () => Storage) {
  /** What is held in memory only. */
  const held = shallowReactive(new Map<string, string>())

  /** Something done with the browser's storage; `otherwise` where it cannot be. */
  function tried<T>(what: (storage: Storage) => T, otherwise: T): T {
    try {
      return what(open())
    } catch {
      return otherwise
    }
  }

  return {
    read: (key: string) => held.get(key) ?? tried((s) => s.getItem(key), null),
    /** Keep a text; whether it outlives the page. */
    write(key: string, text: string): boolean {
      const kept = tried((s) => (s.setItem(key, text), true), false)
      if (kept) held.delete(key)
      else held.set(key, text)
      return kept
    },
    drop(key: string) {
      held.delete(key)
      tried((s) => s.removeItem(key), undefined)
    },
    keys: () => [...new Set([...held.keys(), ...tried((s) => Object.keys(s), [])])],
    /** Whether a text would be gone when the page is left. */
    isHeld: (key: string) => held.has(key),
    /** Whether any of the names that begin so is held in memory only. */
    holds: (prefix: string) => computed(() => [...held.keys()].some((k) => k.startsWith(prefix))),
    /** Whether the browser keeps anything at all. */
    works: () =>
      tried(
        (s) => (s.setItem('vast-harbor-try', ''), s.removeItem('vast-harbor-try'), true),
        false,
      ),
  }
}

export type Shelf = ReturnType<typeof createShelf>

/** Kept until it is dropped, for all windows of this browser. */
export const shelf = createShelf(() => localStorage)
/** Kept over reloads of this window. */
export const windowShelf = createShelf(() => sessionStorage)
