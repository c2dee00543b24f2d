/**
 * Windows of one browser without a browser: each runs the interface's own plan and outbox in a world of its own, with
 * the browser's storage, locks, messages, time and network in the hand of who asks.
 *
 * A line of JSON comes in for each thing to do, and a line goes out when all has come to rest. What a window asks of
 * the server goes out as a line, too, and the next line in is its answer.
 */
import { openSync, readSync, writeSync } from 'node:fs'
import vm from 'node:vm'
import { fileURLToPath } from 'node:url'
import vueI18n from '@intlify/unplugin-vue-i18n/vite'
import vue from '@vitejs/plugin-vue'
import { build } from 'vite'

const here = (path) => fileURLToPath(new URL(path, import.meta.url))

const [{ output }] = await build({
  configFile: false,
  logLevel: 'silent',
  plugins: [
    vue(),
    vueI18n({ include: here('../../src/phrases/en/*.json'), dropMessageCompiler: true }),
  ],
  resolve: { alias: { '@': here('../../src') } },
  define: { 'process.env.NODE_ENV': '"production"' },
  build: {
    write: false,
    minify: false,
    lib: { entry: here('page.ts'), formats: ['iife'], name: 'built' },
  },
})
const script = new vm.Script(output.find((part) => part.isEntry).code)

// Opened anew it waits for what comes.
const lines = openSync('/dev/stdin')
let unread = ''
function read() {
  const buffer = Buffer.alloc(65536)
  for (;;) {
    const end = unread.indexOf('\n')
    if (end >= 0) {
      const line = unread.slice(0, end)
      unread = unread.slice(end + 1)
      return JSON.parse(line)
    }
    const count = readSync(lines, buffer)
    if (!count) process.exit(0)
    unread += buffer.toString('latin1', 0, count)
  }
}

function write(said) {
  const text = Buffer.from(`${JSON.stringify(said)}\n`)
  for (let at = 0; at < text.length;) at += writeSync(1, text, at)
}

/** Everything the windows share, and what has been done to it. */
class Browser {
  kept = new Map()
  locks = new Map()
  full = false
  now = Date.parse('2026-06-01T12:00:00Z')
  timers = []
  windows = new Map()
  count = 0
  busy = 0

  storage(map, limited) {
    const own = {
      getItem: (key) => map.get(key) ?? null,
      setItem: (key, text) => {
        if (limited && this.full) throw new Error('QuotaExceededError')
        map.set(key, String(text))
      },
      removeItem: (key) => void map.delete(key),
    }
    return new Proxy(own, {
      ownKeys: () => [...map.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    })
  }

  later(window, run, wait, every) {
    const id = ++this.count
    this.timers.push({ id, window, run, at: this.now + (wait ?? 0), every })
    return id
  }

  stop(id) {
    this.timers = this.timers.filter((timer) => timer.id !== id)
  }

  /** Let time go by: what was to be done in it is done in its order. */
  async pass(ms) {
    const until = this.now + ms
    for (;;) {
      const next = this.timers.filter((t) => t.at <= until).sort((a, b) => a.at - b.at)[0]
      if (!next) break
      this.now = next.at
      if (next.every) next.at += next.every
      else this.stop(next.id)
      next.run()
      await this.rest()
    }
    this.now = until
  }

  /** Until nothing moves but what waits for time, or for an answer that is held back. */
  async rest() {
    do for (let i = 0; i < 3; i++) await new Promise((done) => setImmediate(done))
    while (this.busy)
  }

  async load(name, session = new Map()) {
    const { windows, locks } = this
    const told = { session, held: [], heard: [] }
    windows.set(name, told)
    const alive = () => windows.get(name) === told
    const manager = {
      async request(lock, _, work) {
        const free = !locks.has(lock)
        if (free) locks.set(lock, told)
        const result = work(free ? { name: lock } : null)
        if (!free) return result
        // A lock that is held for good has no end of its own.
        void Promise.resolve(result).then(() => {
          if (locks.get(lock) === told) locks.delete(lock)
        })
        return result
      },
    }
    class Channel {
      addEventListener(_, heard) {
        told.heard.push(heard)
      }
      postMessage(data) {
        for (const [other, { heard }] of windows)
          if (other !== name) for (const hear of heard) hear({ data })
      }
    }
    const world = {
      console,
      document: { documentElement: { dataset: {} }, hidden: false, addEventListener() {} },
      localStorage: this.storage(this.kept, true),
      sessionStorage: this.storage(session, false),
      navigator: { locks: manager },
      BroadcastChannel: Channel,
      matchMedia: () => ({ matches: false, addEventListener() {} }),
      addEventListener() {},
      setTimeout: (run, wait) => this.later(told, run, wait),
      setInterval: (run, wait) => this.later(told, run, wait, wait),
      clearTimeout: (id) => this.stop(id),
      clearInterval: (id) => this.stop(id),
      queueMicrotask,
      structuredClone,
      crypto: { randomUUID: () => `key-${++this.count}` },
      fetch: (asked) => this.fetch(name, told, alive, asked),
      Request: class extends Request {
        constructor(address, more) {
          super(new URL(address, 'http://localhost'), more)
        }
      },
      Response,
      Headers,
      FormData,
      Blob,
      URL,
      URLSearchParams,
      AbortController,
      Error,
      TypeError,
    }
    world.window = world.self = world
    world.Date = class extends Date {
      static now = () => this.now
    }
    told.world = vm.createContext(world)
    script.runInContext(told.world)
    await this.rest()
  }

  async fetch(name, told, alive, asked) {
    this.busy++
    const { pathname, search } = new URL(asked.url)
    const text = await asked.text()
    this.busy--
    // A window that is gone asks nothing, and hears of nothing.
    if (!alive()) return new Promise(() => {})
    write({ window: name, method: asked.method, path: pathname + search, body: text })
    const { answer, hold } = read()
    if (hold) await new Promise((go) => told.held.push(go))
    if (!alive()) return new Promise(() => {})
    if (!answer) throw new TypeError('Failed to fetch')
    return new Response(answer.body, {
      status: answer.status,
      headers: { 'Content-Type': 'application/json' },
    })
  }

  /** The window is gone, and whatever it was about to do. */
  close(name) {
    const told = this.windows.get(name)
    this.windows.delete(name)
    this.timers = this.timers.filter((timer) => timer.window !== told)
    for (const [lock, by] of this.locks) if (by === told) this.locks.delete(lock)
    return told.session
  }

  async release(name) {
    this.windows.get(name).held.shift()?.()
    await this.rest()
  }
}

let browser = new Browser()
const doing = {
  begin: () => void (browser = new Browser()),
  load: ({ window }) => browser.load(window),
  reload: ({ window }) => browser.load(window, browser.close(window)),
  close: ({ window }) => void browser.close(window),
  full: ({ full }) => void (browser.full = full),
  pass: ({ ms }) => browser.pass(ms),
  release: ({ window }) => browser.release(window),
  async call({ window, name, given }) {
    void browser.windows.get(window).world.page[name](...given)
    await browser.rest()
  },
}

write({ ready: true })
for (;;) {
  const asked = read()
  await doing[asked.do](asked)
  const windows = {}
  for (const [name, { world, held }] of browser.windows)
    windows[name] = { ...world.page.shown(), holding: held.length }
  const kept = [...browser.kept].filter(([key]) => key.startsWith('vast-harbor-unsent-'))
  write({ rest: { windows, kept: kept.flatMap(([, text]) => JSON.parse(text)) } })
}
