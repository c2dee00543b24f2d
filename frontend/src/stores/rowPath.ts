import {
  compileJSONPointerProp,
  immutableJSONPatch,
  type JSONPatchOperation,
} from 'immutable-json-patch'
import type { Operation } from '@/api/client'

/**
 * JSON pointers that name rows by their id instead of their place: `/day/loads/@fridge/draw`. A row keeps its
 * name when rows above it come and go, in this window or in another one.
 */
interface Row {
  id: string
}

const parts = (path: string) => path.split('/').slice(1)
const plain = (part: string) => part.replaceAll('~1', '/').replaceAll('~0', '~')
const escaped = (key: string) => compileJSONPointerProp(key).slice(1)
const isRow = (value: unknown): value is Row =>
  typeof (value as Row | null | undefined)?.id === 'string'

function inside(here: unknown, key: string): unknown {
  return (here as Record<string, unknown> | null | undefined)?.[key]
}

/** A pointer with its rows by id. */
export function named(path: string, document: unknown): string {
  let here: unknown = document
  const out = parts(path).map((part) => {
    const next = inside(here, plain(part))
    const row = Array.isArray(here) && isRow(next)
    here = next
    return row ? `@${escaped((next as Row).id)}` : part
  })
  return out.map((part) => `/${part}`).join('')
}

/** The pointer to where a row stands now, or null where it is gone. */
export function placed(path: string, document: unknown): string | null {
  let here: unknown = document
  let out = ''
  for (const part of parts(path)) {
    let key = plain(part)
    if (Array.isArray(here) && part.startsWith('@')) {
      const at = here.findIndex((row) => isRow(row) && row.id === key.slice(1))
      if (at < 0) return null
      key = String(at)
    }
    out += `/${part.startsWith('@') && Array.isArray(here) ? key : part}`
    here = inside(here, key)
  }
  return out
}

/** The document after an operation; as it was where the operation does not fit. */
function after(document: unknown, operation: Operation): unknown {
  try {
    return immutableJSONPatch(document, [operation as JSONPatchOperation])
  } catch {
    return document
  }
}

const FROM = 'source'

function along(
  operations: Operation[],
  document: unknown,
  name: (path: string, here: unknown) => string | null,
): Operation[] | null {
  let here = document
  const out: Operation[] = []
  for (const operation of operations) {
    const path = name(operation.path, here)
    const from = operation.source == null ? undefined : name(operation.source, here)
    if (path === null || from === null) return null
    out.push({ ...operation, path, ...(from === undefined ? {} : { [FROM]: from }) })
    const done = name === placed ? out.at(-1)! : operation
    here = after(here, done)
  }
  return out
}

/** Operations with their rows by id, each as the rows stand when those before it are done. */
export function namedAll(operations: Operation[], document: unknown): Operation[] {
  return along(operations, document, named) ?? operations
}

/** Operations where the rows stand now; null where one of the rows is gone. */
export function placedAll(operations: Operation[], document: unknown): Operation[] | null {
  return along(operations, document, placed)
}

/** Tests (RFC 6902) that each row that is meant stands where it is looked for. */
export function meantRows(operations: Operation[], document: unknown): Operation[] {
  const tests = new Map<string, Operation>()
  for (const { path } of operations) {
    let upTo = ''
    for (const part of parts(path)) {
      upTo += `/${part}`
      if (!part.startsWith('@')) continue
      const at = placed(upTo, document)
      if (at) tests.set(at, { op: 'test', path: `${at}/id`, value: plain(part).slice(1) })
    }
  }
  return [...tests.values()]
}
