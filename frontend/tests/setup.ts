import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterEach, beforeEach, vi } from 'vitest'
import { server } from './fakeServer'

// The drawing itself is the library's: what it is told to draw is held in the tests of the charts.
vi.mock('vue-echarts', () => ({
  default: { name: 'VChart', props: ['option'], template: '<i />' },
}))

// Before anything keeps a fetch of its own: every request goes to the server that the test has.
vi.stubGlobal('fetch', (asked: Request | string, init?: RequestInit) =>
  server.current.answer(
    typeof asked === 'string' ? new Request(new URL(asked, 'http://localhost'), init) : asked,
  ),
)
// All files share a window, which takes a third of the time of one each: what a test began ends with it.
vi.stubGlobal('BroadcastChannel', undefined)
vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener() {} }))

const ends: (() => void)[] = []

/** What is begun from now on ends when the test does. */
function watch() {
  for (const name of ['setTimeout', 'setInterval'] as const) {
    const begin = globalThis[name]
    vi.spyOn(globalThis, name).mockImplementation(((...given: Parameters<typeof begin>) => {
      const timer = begin.apply(globalThis, given)
      ends.push(() => clearTimeout(timer))
      return timer
    }) as typeof begin)
  }
  for (const target of [window, document]) {
    const listen = target.addEventListener
    vi.spyOn(target, 'addEventListener').mockImplementation((...given: unknown[]) => {
      const heard = given as [string, EventListener, boolean | undefined]
      listen.call(target, ...heard)
      ends.push(() => target.removeEventListener(...heard))
    })
  }
}

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  watch()
})
disableAutoUnmount()
enableAutoUnmount(afterEach)
afterEach(() => {
  vi.useRealTimers()
  for (const end of ends.splice(0)) end()
  document.body.replaceChildren()
})
