import type { Load } from '@/api/rigFile'
import { clock, useBlocks, type Block } from '@/stops/day/useBlocks'
import { usePlan } from '@/stores/plan'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { FakeServer, server, settle, view } from './fakeServer'

let fake: FakeServer
const load = { id: 'tv', name: 'Television', on: {}, windows: [] } as unknown as Load

/** A track of 240 px: ten pixels an hour. */
function track() {
  const element = document.createElement('div')
  element.getBoundingClientRect = () => ({ left: 100, width: 240 }) as DOMRect
  element.setPointerCapture = () => {}
  return element
}

async function sheet(stored: Block[], one: Load = load) {
  fake = server.current = new FakeServer()
  fake.shown = view({ day: { type: 'summer', loads: [] } })
  setActivePinia(createPinia())
  await usePlan().open(7)
  const on = track()
  return useBlocks(
    () => one,
    () => 3,
    () => stored,
    () => on,
  )
}

const pointer = (hour: number, more = {}) => ({
  button: 0,
  clientX: 100 + hour * 10,
  pointerId: 1,
  altKey: false,
  target: document.createElement('i'),
  preventDefault() {},
  stopPropagation() {},
  ...more,
})
const at = (hour: number, more = {}) => pointer(hour, more) as unknown as PointerEvent
const press = (key: string, shiftKey = false) =>
  ({ key, shiftKey, preventDefault() {}, stopPropagation() {} }) as unknown as KeyboardEvent
/** The times that were sent last. */
const sent = () => {
  const operations = fake.edits().at(-1)?.operations as { path: string; value: unknown }[]
  return operations.at(-1)
}

describe('times on the sheet', () => {
  beforeEach(() => undefined)

  it('are written as on a clock', () => {
    expect([0, 7.25, 12.5, 23.999, 24].map(clock)).toEqual([
      '00:00',
      '07:15',
      '12:30',
      '24:00',
      '24:00',
    ])
  })

  it('move with the hand in quarters of an hour and keep their length', async () => {
    const { grab, drag, release, blocks } = await sheet([[8, 10]])
    grab(at(9), 'move', 0)
    drag(at(11.6))
    expect(blocks.value).toEqual([[10.5, 12.5]])
    await release()
    expect(sent()).toMatchObject({ path: '/day/loads/3/windows', value: [[10.5, 12.5]] })
  })

  it('stop at midnight on either side', async () => {
    const { grab, drag, blocks } = await sheet([[1, 3]])
    grab(at(2), 'move', 0)
    drag(at(-5))
    expect(blocks.value).toEqual([[0, 2]])
    drag(at(30))
    expect(blocks.value).toEqual([[22, 24]])
  })

  it('are never shorter than a quarter of an hour when stretched', async () => {
    const { grab, drag, blocks } = await sheet([[8, 10]])
    grab(at(10), 'end', 0)
    drag(at(3))
    expect(blocks.value).toEqual([[8, 8.25]])
    grab(at(8), 'start', 0)
    drag(at(23))
    expect(blocks.value).toEqual([[8, 8.25]])
  })

  it('are drawn in either direction', async () => {
    const { grab, drag, blocks } = await sheet([])
    grab(at(12), 'draw', 0)
    drag(at(14.5))
    expect(blocks.value).toEqual([[12, 14.5]])
    drag(at(9))
    expect(blocks.value).toEqual([[9, 12]])
  })

  it('are copied with Alt, the first staying where it is', async () => {
    const { grab, drag, blocks } = await sheet([[8, 9]])
    grab(at(8.5, { altKey: true }), 'move', 0)
    drag(at(12.5))
    expect(blocks.value).toEqual([
      [8, 9],
      [12, 13],
    ])
  })

  it('are left alone by any but the first button', async () => {
    const { grab, dragging } = await sheet([[8, 9]])
    grab(at(8.5, { button: 2 }), 'move', 0)
    expect(dragging.value).toBe(false)
  })

  it('go by the keys, too', async () => {
    const { key, blocks } = await sheet([[8, 9]])
    key(press('ArrowRight'), 0)
    expect(blocks.value).toEqual([[8.25, 9.25]])
    key(press('ArrowLeft', true), 0)
    expect(blocks.value).toEqual([[8.25, 9]])
    key(press('c'), 0)
    expect(blocks.value).toEqual([
      [8.25, 9],
      [9.25, 10],
    ])
    key(press('Delete'), 0)
    expect(blocks.value).toEqual([[9.25, 10]])
    await settle()
  })

  it('are sent in their order, and added to the day on which the load was off', async () => {
    const off = { ...load, on: { summer: null } } as unknown as Load
    const { add } = await sheet([[20, 21]], off)
    await add()
    expect(sent()).toMatchObject({
      path: '/day/loads/3/on/summer',
      value: {
        use: 'times',
        windows: [
          [18, 19],
          [20, 21],
        ],
      },
    })
  })
})
