import { named, namedAll, placed, placedAll, meantRows } from '@/stores/rowPath'
import { describe, expect, it } from 'vitest'

const load = (id: string) => ({ id, draw: '1 W', on: {} })
const rig = (...ids: string[]) => ({
  rig: { name: 'Wren' },
  day: { loads: ids.map(load) },
  candidates: [{ id: 'l', extras: [{ id: 'x1' }, { id: 'x2' }], stages: [{ parallel: 1 }] }],
})
const all = rig('pump', 'lamp', 'a/b~c')

describe('rows by their id', () => {
  it('are named where they have an id, and found again', () => {
    const names = {
      '/day/loads/1/draw': '/day/loads/@lamp/draw',
      '/day/loads/2': '/day/loads/@a~1b~0c',
      '/candidates/0/extras/1/price': '/candidates/@l/extras/@x2/price',
      '/candidates/0/stages/0/parallel': '/candidates/@l/stages/0/parallel',
      '/day/loads/-': '/day/loads/-',
      '/rig/name': '/rig/name',
    }
    for (const [path, name] of Object.entries(names)) {
      expect(named(path, all)).toBe(name)
      expect(placed(name, all)).toBe(path)
    }
  })

  it('follow their row to where it stands now, and are nowhere when it is gone', () => {
    const now = rig('new', 'lamp')
    expect(placed('/day/loads/@lamp/draw', now)).toBe('/day/loads/1/draw')
    expect(placed('/day/loads/@pump/draw', now)).toBeNull()
    expect(placedAll([{ op: 'remove', path: '/day/loads/@pump' }], now)).toBeNull()
  })

  it('are those that stand there when the operations before are done', () => {
    const two = [
      { op: 'remove' as const, path: '/day/loads/0' },
      { op: 'remove' as const, path: '/day/loads/0' },
    ]
    const names = namedAll(two, all)
    expect(names.map((o) => o.path)).toEqual(['/day/loads/@pump', '/day/loads/@lamp'])
    const now = rig('x', 'lamp', 'pump')
    expect(placedAll(names, now)!.map((o) => o.path)).toEqual(['/day/loads/2', '/day/loads/1'])
  })

  it('are tested by the server before anything is done', () => {
    const names = namedAll([{ op: 'replace', path: '/candidates/0/extras/1/price', value: 3 }], all)
    expect(meantRows(names, all)).toEqual([
      { op: 'test', path: '/candidates/0/id', value: 'l' },
      { op: 'test', path: '/candidates/0/extras/1/id', value: 'x2' },
    ])
    expect(meantRows([{ op: 'add', path: '/day/loads/-', value: load('n') }], all)).toEqual([])
  })
})
