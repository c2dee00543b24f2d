import type { RigView } from '@/api/client'
import { share } from '@/stores/share'
import { takePatch, takeWhole } from '@/stores/takeView'
import { describe, expect, it } from 'vitest'
import { nextTick, watchEffect } from 'vue'
import { view } from './fakeServer'

const rig = (changes = {}) => view(changes) as unknown as RigView

describe('sharing', () => {
  it('keeps the old one where nothing changed, and every part that did not', () => {
    const before = { a: { x: [1, 2] }, b: { y: 1 } }
    expect(share(before, structuredClone(before))).toBe(before)
    const after = share(before, { a: { x: [1, 2] }, b: { y: 2 } })
    expect(after).toEqual({ a: { x: [1, 2] }, b: { y: 2 } })
    expect(after.a).toBe(before.a)
    expect(after.b).not.toBe(before.b)
  })

  it('sees what is gone, what is new, and a list where an object was', () => {
    const before = { a: [1, 2, 3], b: 1 }
    expect(share(before, { a: [1, 2] })).toEqual({ a: [1, 2] })
    expect(share({ a: {} } as unknown, { a: [] })).toEqual({ a: [] })
    expect(share({ a: null } as unknown, { a: {} })).toEqual({ a: {} })
  })
})

describe('a view that arrives', () => {
  it('takes the place of none, or of another rig', () => {
    const first = takeWhole(null, rig())
    expect(first).toEqual(view())
    const other = takeWhole(first, rig({ id: 8 }))
    expect(other).not.toBe(first)
    expect(other.id).toBe(8)
  })

  it('of the same rig goes into what is shown, and leaves nothing old behind', () => {
    const shown = takeWhole(null, rig({ seasons: { winter: 1 }, fields: { '/a': '1', '/b': '2' } }))
    const strip = shown.strip
    const next = takeWhole(shown, rig({ revision: 2, stop: 'day', fields: { '/b': '3' } }))
    expect(next).toBe(shown)
    expect(next).toEqual(view({ revision: 2, stop: 'day', fields: { '/b': '3' } }))
    expect(next.strip).toBe(strip)
  })

  it('as a patch changes what it names and nothing else', () => {
    const shown = takeWhole(null, rig({ document: { a: { b: 1 }, c: { d: 2 } } }))
    const kept = (shown.document as Record<string, unknown>).c
    takePatch(shown, [
      { op: 'replace', path: '/document/a/b', value: 5 },
      { op: 'replace', path: '/fields/~1rig~1name', value: 'Heron' },
      { op: 'remove', path: '/fields/~1rig~1years_kept' },
      { op: 'add', path: '/fields/~1plan~1overrides~1x', value: '9' },
    ])
    expect(shown.document).toEqual({ a: { b: 5 }, c: { d: 2 } })
    expect((shown.document as Record<string, unknown>).c).toBe(kept)
    expect(shown.fields).toEqual({
      '/rig/name': 'Heron',
      '/day/standby_w': '2',
      '/plan/overrides/x': '9',
    })
  })

  it('adds to a list and takes from its end', () => {
    const shown = takeWhole(null, rig({ strip: [{ n: 1 }, { n: 2 }, { n: 3 }] }))
    takePatch(shown, [
      { op: 'replace', path: '/strip/0/n', value: 9 },
      { op: 'remove', path: '/strip/2' },
      { op: 'remove', path: '/strip/1' },
    ])
    expect(shown.strip).toEqual([{ n: 9 }])
    takePatch(shown, [{ op: 'add', path: '/strip/-', value: { n: 4 } }])
    expect(shown.strip).toEqual([{ n: 9 }, { n: 4 }])
  })

  it('stirs only who follows the field, or the part, that changed', async () => {
    const shown = takeWhole(null, rig())
    const seen = { name: 0, strip: 0 }
    watchEffect(() => {
      void shown.fields['/rig/name']
      seen.name++
    })
    watchEffect(() => {
      void shown.strip
      seen.strip++
    })
    takePatch(shown, [{ op: 'replace', path: '/fields/~1day~1standby_w', value: '4' }])
    await nextTick()
    expect(seen).toEqual({ name: 1, strip: 1 })
    takePatch(shown, [{ op: 'replace', path: '/fields/~1rig~1name', value: 'Heron' }])
    await nextTick()
    expect(seen).toEqual({ name: 2, strip: 1 })
  })
})
