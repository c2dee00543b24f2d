import { beforeEach, vi } from 'vitest'
import { server } from './fakeServer'

// Before anything keeps a fetch of its own: every request goes to the server that the test has.
vi.stubGlobal('fetch', (request: Request) => server.current.answer(request))
vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener() {} }))

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})
