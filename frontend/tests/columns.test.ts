import { useColumns } from '@/stops/compare/useColumns'
import { usePlan } from '@/stores/plan'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { FakeServer, server, view } from './fakeServer'

const figures = (...values: (number | null)[]) => values.map((value) => ({ value }))

beforeEach(async () => {
  const fake = (server.current = new FakeServer())
  fake.shown = view({
    compare: {
      compared_banks: [{ id: 'flooded' }, { id: 'agm' }, { id: 'lfp' }],
      rows: [
        { key: 'kg', better: 'low', figures: figures(60, 50, 25) },
        { key: 'years', better: 'high', figures: figures(4, 7, 14) },
        { key: 'first_dark', better: 'high', figures: figures(30, null, 20) },
      ],
    },
  })
  setActivePinia(createPinia())
  await usePlan().open(7)
})

const ids = (columns: ReturnType<typeof useColumns>) => columns.shown.value.map((c) => c.id)

describe('columns of the comparison', () => {
  it('stand as they were added until they are sorted', () => {
    expect(ids(useColumns())).toEqual(['flooded', 'agm', 'lfp'])
  })

  it('are sorted by a row: its better end first, then the other way, then not at all', () => {
    const columns = useColumns()
    columns.sortBy('years', 'high')
    expect(ids(columns)).toEqual(['lfp', 'agm', 'flooded'])
    columns.sortBy('years', 'high')
    expect(ids(columns)).toEqual(['flooded', 'agm', 'lfp'])
    columns.sortBy('years', 'high')
    expect(columns.kept.value.sort).toBe('')
    columns.sortBy('kg', 'low')
    expect(ids(columns)).toEqual(['lfp', 'agm', 'flooded'])
  })

  it('count what never happens as more than any number', () => {
    const columns = useColumns()
    columns.sortBy('first_dark', 'high')
    expect(ids(columns)).toEqual(['agm', 'flooded', 'lfp'])
  })

  it('are hidden, brought back and pinned', () => {
    const columns = useColumns()
    columns.toggle('pinned', 'lfp')
    columns.toggle('hidden', 'agm')
    expect(ids(columns)).toEqual(['lfp', 'flooded'])
    expect(columns.hidden.value.map((c) => c.id)).toEqual(['agm'])
    columns.toggle('hidden', 'agm')
    columns.toggle('pinned', 'lfp')
    expect(ids(columns)).toEqual(['flooded', 'agm', 'lfp'])
  })

  it('forget a reference that is hidden', () => {
    const columns = useColumns()
    columns.kept.value.reference = 'agm'
    expect(columns.reference.value).toBe('agm')
    columns.toggle('hidden', 'agm')
    expect(columns.reference.value).toBe('')
  })

  it('are kept for the rig over a reload', async () => {
    const columns = useColumns()
    columns.toggle('hidden', 'agm')
    columns.sortBy('kg', 'low')
    await nextTick()
    expect(ids(useColumns())).toEqual(['lfp', 'flooded'])
    expect(localStorage.getItem('vast-harbor-columns-7')).toContain('agm')
  })
})
