import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useBanks } from '@/stores/useBanks'
import { useLoads } from '@/stores/useLoads'
import { useDayTypes } from '@/stops/day/useDayTypes'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { FakeServer, server, settle, view } from './fakeServer'

let fake: FakeServer

const usual = { use: 'hours', hours: 4, uses: 0, minutes: 0, starts_at: null, windows: [] }
const own = { ...usual, hours: 9 }
const load = (id: string, on = {}) => ({ id, name: `The ${id}`, draw: '10 W', on, ...usual })

async function openWith(document: object, more: object = {}) {
  fake = server.current = new FakeServer()
  fake.shown = view({ document: { rig: {}, plan: { day_type: null }, ...document }, ...more })
  setActivePinia(createPinia())
  await usePlan().open(7)
}

const sent = () => fake.edits().map((e) => e.operations)
const labels = () => fake.edits().map((e) => e.label)

describe('rows of loads', () => {
  beforeEach(async () => {
    const day = {
      loads: [load('load-1', { summer: own }), load('load-4', { summer: null }), load('pump')],
      types: [{ id: 'summer', name: 'Summer' }],
    }
    await openWith({ day, candidates: [] }, { day: { type: 'summer', index: 0, loads: [] } })
  })

  it('have the times of the day that is shown, and say where they stand', () => {
    const { loads, onDay, timesOf, timesPath } = useLoads()
    expect(loads.value.map(onDay)).toEqual(['own', 'off', 'usual'])
    expect(timesOf(loads.value[0]!)).toEqual(own)
    expect(timesOf(loads.value[2]!).hours).toBe(4)
    expect(timesPath(loads.value[0]!, 0)).toBe('/day/loads/0/on/summer')
    expect(timesPath(loads.value[2]!, 2)).toBe('/day/loads/2')
  })

  it('get times of their own from the usual ones, none, or the usual ones again', async () => {
    const { loads, setOnDay } = useLoads()
    await setOnDay(loads.value[2]!, 2, 'own')
    await setOnDay(loads.value[2]!, 2, 'off')
    await setOnDay(loads.value[0]!, 0, 'usual')
    expect(sent()).toEqual([
      [{ op: 'add', path: '/day/loads/2/on/summer', value: usual }],
      [{ op: 'add', path: '/day/loads/2/on/summer', value: null }],
      [{ op: 'remove', path: '/day/loads/0/on/summer' }],
    ])
    expect(labels()[1]).toBe('The pump: not on this day')
  })

  it('never share an id, neither one by one nor many at once', async () => {
    const { add, addMany } = useLoads()
    await add()
    // Three stand there: the next number would be four, but that one is taken.
    expect(sent()[0]).toMatchObject([{ path: '/day/loads/-', value: { id: 'load-5' } }])
    await addMany([{ name: 'a' }, { name: 'b', id: 'load-1' }])
    const ids = (sent()[1] as { value: { id: string } }[]).map((o) => o.value.id)
    expect(new Set([...ids, 'load-1', 'load-4', 'pump']).size).toBe(5)
  })

  it('come from the list of appliances with all that is known of them', async () => {
    const { add } = useLoads()
    await add({ name: 'Kettle', says: '', load: { name: 'Kettle', supply: 'ac' } } as never)
    expect(sent()[0]).toMatchObject([{ value: { name: 'Kettle', supply: 'ac', id: 'load-5' } }])
    expect(labels()).toEqual(['add Kettle'])
  })

  it('take the focus when they are new', async () => {
    document.body.innerHTML = '<p data-load="load-5"><input value="Load 4" /></p>'
    await useLoads().add()
    expect(document.activeElement).toBe(document.querySelector('input'))
  })
})

describe('kinds of day', () => {
  const types = [
    { id: 'summer', name: 'A summer day of rather many words to say' },
    { id: 'day-3', name: 'Three' },
  ]
  const loads = [load('a', { summer: own }), load('b'), load('c', { summer: null, 'day-3': own })]
  const at = (index: number, day_type: string | null = 'summer') =>
    openWith(
      { day: { loads, types }, plan: { day_type }, candidates: [] },
      { day: { type: types[index]!.id, index, loads: [] } },
    )

  it('are copied with what the loads do otherwise on them, and shown', async () => {
    await at(0)
    await useDayTypes().copy()
    const operations = sent()[0] as { path: string; value: { name: string } }[]
    expect(operations.map((o) => o.path)).toEqual([
      '/day/types/-',
      '/day/loads/0/on/day-4',
      '/day/loads/2/on/day-4',
    ])
    expect(operations.map((o) => o.value).slice(1)).toEqual([own, null])
    // A name has at most forty letters.
    expect(operations[0]!.value.name).toHaveLength(39)
    expect(usePlan().show).toBe('day-4')
  })

  it('are removed with what the loads do on them; the plan no longer names them', async () => {
    await at(0)
    await useDayTypes().remove()
    expect(sent()[0]).toEqual([
      { op: 'remove', path: '/day/types/0' },
      { op: 'remove', path: '/day/loads/0/on/summer' },
      { op: 'remove', path: '/day/loads/2/on/summer' },
      { op: 'replace', path: '/plan/day_type', value: null },
    ])
    expect(usePlan().show).toBe('')
  })

  it('leave the plan alone where it names another', async () => {
    await at(1)
    await useDayTypes().remove()
    expect((sent()[0] as { path: string }[]).map((o) => o.path)).toEqual([
      '/day/types/1',
      '/day/loads/2/on/day-3',
    ])
  })

  it('are planned for by hand, or left to the one that needs most', async () => {
    await at(1, null)
    const days = useDayTypes()
    expect(days.chosen.value).toBe(false)
    await days.planFor(true)
    await days.planFor(false)
    expect(sent().flat()).toEqual([
      { op: 'replace', path: '/plan/day_type', value: 'day-3' },
      { op: 'replace', path: '/plan/day_type', value: null },
    ])
  })
})

describe('candidates', () => {
  const card = (id: string, index: number) => ({ id, index, title: `Bank ${id}`, figures: {} })
  const open = (...ids: string[]) =>
    openWith(
      {
        day: { loads: [], types: [] },
        candidates: ids.map((id) => ({ id, extras: [{ id: 'x2' }] })),
      },
      { banks: { candidates: ids.map(card) } },
    )

  it('never share an id', async () => {
    await open('lfp', 'lfp-2', 'agm')
    const banks = useBanks()
    await banks.add('lfp', null, 'LFP')
    await banks.add('gel', null, 'gel')
    await banks.add('agm', 'tarnmoor', 'Tarnmoor')
    const ids = sent().map((o) => (o as { value: { id: string } }[])[0]!.value.id)
    expect(ids).toEqual(['lfp-3', 'gel', 'tarnmoor'])
  })

  it('are added with the strings with which they were found', async () => {
    await open()
    await useBanks().addFound({
      model: 'ostrel',
      title: 'Ostrel',
      battery_class: 'lfp',
      series: 2,
      parallel: 3,
      usable_wh: 9,
    } as never)
    expect(sent()[0]).toEqual([
      {
        op: 'add',
        path: '/candidates/-',
        value: { id: 'ostrel', battery_class: 'lfp', model: 'ostrel', series: 2, parallel: 3 },
      },
    ])
  })

  it('are changed and removed at their own place', async () => {
    await open('a', 'b', 'c')
    const { candidates, set, remove } = useBanks()
    await set(candidates.value[1]!, 'parallel', 2, 'strings')
    await remove(candidates.value[2]!)
    expect(sent().flat()).toEqual([
      { op: 'replace', path: '/candidates/1/parallel', value: 2 },
      { op: 'remove', path: '/candidates/2' },
    ])
    expect(labels()).toEqual(['Bank b: strings', 'remove Bank c'])
  })

  it('get an extra whose id is free', async () => {
    await open('a')
    await useBanks().addExtra({ index: 0, title: 'Bank a' })
    expect(sent()[0]).toMatchObject([{ path: '/candidates/0/extras/-', value: { id: 'x3' } }])
  })

  it('are eight at most', async () => {
    await open('a', 'b', 'c', 'd', 'e', 'f', 'g')
    expect(useBanks().full.value).toBe(false)
    await open('a', 'b', 'c', 'd', 'e', 'f', 'g', 'h')
    expect(useBanks().full.value).toBe(true)
  })
})

describe('the reference', () => {
  const classes = [
    { key: 'agm', lead_acid: true, unit_v: '12 V', rated_hours: 20 },
    { key: 'gel', lead_acid: true, unit_v: '12 V', rated_hours: 20 },
    { key: 'lfp', lead_acid: false, unit_v: '12.8 V', rated_hours: 5 },
  ]

  beforeEach(async () => {
    await openWith({ day: { loads: [], types: [] }, candidates: [] })
    fake.others['GET /api/reference'] = () => ({ classes, appliances: [{ name: 'Shipped' }] })
    fake.others['GET /api/appliances'] = () => ({ appliances: [{ id: 4, name: 'Mine' }] })
    fake.others['DELETE /api/appliances/4'] = () => ({ appliances: [] })
    await useReference().load()
  })

  it('is loaded once, the own appliances before those that ship', async () => {
    const reference = useReference()
    await reference.load()
    expect(fake.asked.filter((a) => a.path === '/api/reference')).toHaveLength(1)
    expect(reference.appliances.map((a) => a.name)).toEqual(['Mine', 'Shipped'])
    await reference.forgetOwn(4)
    expect(reference.appliances.map((a) => a.name)).toEqual(['Shipped'])
  })

  it('changes volts and rated hours with the family of a battery, and only then', async () => {
    await settle()
    const { withClass } = useReference()
    expect(withClass('/old_bank', 'agm', 'gel', true)).toEqual([])
    expect(withClass('/old_bank', 'agm', 'unheard of', true)).toEqual([])
    expect(withClass('/old_bank', 'agm', 'lfp')).toEqual([
      { op: 'replace', path: '/old_bank/unit_v', value: '12.8 V' },
    ])
    expect(withClass('/old_bank', 'lfp', 'agm', true)).toEqual([
      { op: 'replace', path: '/old_bank/unit_v', value: '12 V' },
      { op: 'replace', path: '/old_bank/rated_hours', value: 20 },
    ])
  })
})
