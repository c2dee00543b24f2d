import { windowShelf } from './shelf'

interface Handlers {
  /** Another window of this browser stored an edit. */
  changed: (rig: number, revision: number) => void
  /** The window is looked at again. */
  seen: () => void
  /** A window was closed and left something unsent. */
  orphaned: (tab: string) => void
}

const TAB = 'vast-harbor-tab'
const LEFT_EVERY = 10_000

/** A key that nobody else makes. */
export function freshKey(): string {
  // Over the local network without encryption a browser has no randomUUID.
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID()
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  return [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('')
}

/** This page, from its loading until it is left: so many streams are for one. */
export const PAGE = freshKey()

/**
 * This window among others of the same browser: its name, which a reload keeps, and what the others do.
 */
export function useWindow({ changed, seen, orphaned }: Handlers) {
  let tab = windowShelf.read(TAB) ?? freshKey()
  windowShelf.write(TAB, tab)
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(TAB)
  channel?.addEventListener('message', ({ data }) => changed(data.rig, data.revision))
  document.addEventListener('visibilitychange', () => {
    if (!document.hidden) seen()
  })
  /** Held for as long as the window lives: the others see by it that it does. */
  function live() {
    void navigator.locks?.request(`${TAB}-${tab}`, { ifAvailable: true }, (lock) => {
      if (lock) return new Promise(() => {})
      // The browser copied another window, its name too.
      tab = freshKey()
      windowShelf.write(TAB, tab)
      live()
    })
  }
  live()

  /** Look now, and from time to time, for windows that left something and are gone. */
  function watch(left: () => string[]) {
    if (!navigator.locks) return
    const look = () => {
      for (const other of left().filter((t) => t !== tab)) {
        void navigator.locks.request(`${TAB}-${other}`, { ifAvailable: true }, (lock) => {
          if (!lock) return
          orphaned(other)
          // Held for good: nobody else takes it over.
          return new Promise(() => {})
        })
      }
    }
    // At once, too: what was left goes before what is done now.
    look()
    setInterval(look, LEFT_EVERY)
  }

  return {
    get tab() {
      return tab
    },
    watch,
    /** Tell the others what was stored. */
    tell: (rig: number, revision: number) => channel?.postMessage({ rig, revision }),
  }
}
