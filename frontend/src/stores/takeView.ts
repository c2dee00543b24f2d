import type { RigView } from '@/api/client'
import { immutableJSONPatch, parseJSONPointer, type JSONPatchOperation } from 'immutable-json-patch'
import { shallowReactive, toRaw } from 'vue'
import { share } from './share'

/**
 * Views of the rig as they arrive. What is drawn follows the parts, and of `fields` each single one, so that
 * only what really changed is drawn again.
 */
type Open = Record<string, unknown> & { fields: Record<string, string> }

function putFields(fields: Record<string, string>, next: Record<string, string>) {
  for (const path of Object.keys(fields)) if (!(path in next)) delete fields[path]
  for (const [path, text] of Object.entries(next)) if (fields[path] !== text) fields[path] = text
}

/** A whole view in place of another, or of none. */
export function takeWhole(shown: RigView | null, next: RigView): RigView {
  if (!shown || shown.id !== next.id) {
    return shallowReactive({ ...next, fields: shallowReactive({ ...next.fields }) })
  }
  const open = shown as Open
  const { fields, ...parts } = next
  putFields(open.fields, fields)
  for (const key of Object.keys(toRaw(open))) {
    if (key !== 'fields' && !(key in parts)) delete open[key]
  }
  for (const [key, part] of Object.entries(parts)) {
    const shared = share(toRaw(open)[key], part)
    if (shared !== toRaw(open)[key]) open[key] = shared
  }
  return shown
}

/** What differs from the view that is shown. */
export function takePatch(shown: RigView, operations: JSONPatchOperation[]) {
  const open = shown as Open
  const [ofFields, rest] = [true, false].map((fields) =>
    operations.filter((o) => o.path.startsWith('/fields/') === fields),
  ) as [JSONPatchOperation[], JSONPatchOperation[]]
  for (const operation of ofFields) {
    const path = parseJSONPointer(operation.path)[1]!
    if (operation.op === 'remove') delete open.fields[path]
    else if ('value' in operation) open.fields[path] = operation.value as string
  }
  const before = toRaw(open)
  const next = immutableJSONPatch(before, rest) as Open
  for (const key of Object.keys(next)) if (next[key] !== before[key]) open[key] = next[key]
}
