import { mount } from '@vue/test-utils'
import type { JSONPatchOperation } from 'immutable-json-patch'

type Json = Record<string, unknown>
export interface Asked {
  method: string
  path: string
  query: URLSearchParams
  body: Json
}

/** A rig as small as the store needs it. */
export function view(changes: Json = {}): Json {
  return {
    id: 7,
    revision: 1,
    undo: null,
    redo: null,
    document: { rig: { name: 'Wren' }, day: { loads: [] }, candidates: [] },
    fields: { '/rig/name': 'Wren', '/day/standby_w': '2', '/rig/years_kept': '10' },
    units: { kg: 'kg' },
    strip: [],
    stop: 'rig',
    assumptions: [],
    findings: [],
    stale: false,
    what_if: null,
    ...changes,
  }
}

/** Answers as the real server would, in the order of the requests; what it is told to do comes first. */
export class FakeServer {
  asked: Asked[] = []
  shown = view()
  version = 0
  /** What the next answers are instead: a status with its body, or nothing at all. */
  next: ({ status: number; body: Json } | 'unreachable')[] = []
  /** Answers of addresses other than the rig's, by method and path. */
  others: Record<string, (asked: Asked) => Json> = {}
  /** Answers wait until this is called for each of them. */
  held: (() => void)[] | null = null

  async answer(request: Request): Promise<Response> {
    const url = new URL(request.url, 'http://localhost')
    const text = await request.text()
    const body = /^[[{]/.test(text) ? JSON.parse(text) : {}
    const asked = { method: request.method, path: url.pathname, query: url.searchParams, body }
    this.asked.push(asked)
    if (this.held) await new Promise<void>((go) => this.held!.push(go))
    const told = this.next.shift()
    if (told === 'unreachable') throw new TypeError('Failed to fetch')
    if (told) return Response.json(told.body, { status: told.status })
    const other = this.others[`${request.method} ${url.pathname}`]
    if (other) return Response.json(other(asked))
    if (url.pathname.endsWith('/pictures')) return Response.json({ pictures: [] })
    if (request.method === 'GET') return this.whole(url.searchParams.get('stop') ?? '')
    return this.edited(body)
  }

  private whole(stop: string): Response {
    this.version++
    this.shown = { ...this.shown, stop }
    return Response.json({
      version: `v${this.version}`,
      revision: this.shown.revision,
      whole: this.shown,
    })
  }

  /** Takes every edit as it is, and tells what differs. */
  private edited(body: Json): Response {
    const revision = Number(this.shown.revision) + 1
    const operations = withoutTests(body) as { path: string; value: string }[]
    const fields = { ...(this.shown.fields as Record<string, string>) }
    for (const o of operations) fields[o.path] = String(o.value)
    this.shown = { ...this.shown, revision, fields, undo: (body.label as string) ?? null }
    this.version++
    const patch: JSONPatchOperation[] = [
      { op: 'replace', path: '/revision', value: revision },
      { op: 'replace', path: '/undo', value: body.label ?? null },
      ...operations.map((o): JSONPatchOperation => {
        const pointer = o.path.replaceAll('~', '~0').replaceAll('/', '~1')
        return { op: 'replace', path: `/fields/${pointer}`, value: fields[o.path] }
      }),
    ]
    return Response.json({ version: `v${this.version}`, revision, patch })
  }

  /** Let the oldest answer that is held go. */
  async release() {
    this.held!.shift()!()
    await settle()
  }

  /** The edits that were sent, without their tests of which row stands where. */
  edits(): Json[] {
    return this.asked
      .filter((a) => a.method === 'PATCH')
      .map((a) => ({ ...a.body, operations: withoutTests(a.body) }))
  }
}

function withoutTests(body: Json): Json[] {
  return ((body.operations ?? []) as Json[]).filter((o) => o.op !== 'test')
}

/** Let everything that is under way come to rest. */
export async function settle() {
  for (let i = 0; i < 20; i++) await new Promise((done) => queueMicrotask(() => done(null)))
}

/** What a component would get that uses something. */
export function inside<T>(use: () => T): T {
  let made!: T
  mount({ template: '<i />', setup: () => void (made = use()) })
  return made
}

/** A file that somebody picks. */
export function pick(input: Element, file: File) {
  Object.defineProperty(input, 'files', { value: [file], configurable: true })
  input.dispatchEvent(new Event('change'))
}

export const server = { current: new FakeServer() }
