import { beforeEach, vi } from 'vitest'
import { server } from './fakeServer'

// Before anything keeps a fetch of its own: every request goes to the server that the test has.
vi.stubGlobal('fetch', (asked: Request | string, init?: RequestInit) =>
  server.current.answer(
    typeof asked === 'string' ? new Request(new URL(asked, 'http://localhost'), init) : asked,
  ),
)
// Each test has a window of its own, and hears nothing of those before it.
vi.stubGlobal('BroadcastChannel', undefined)
vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener() {} }))

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})
