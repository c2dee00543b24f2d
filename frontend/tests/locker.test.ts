import { usePlan } from '@/stores/plan'
import LockerRoom from '@/stops/banks/locker/LockerRoom.vue'
import { useBoxes, type Box } from '@/stops/banks/locker/useBoxes'
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref, type Ref } from 'vue'
import { FakeServer, server } from './fakeServer'

let fake: FakeServer
const box = (number: number, x: number, more: Partial<Box> = {}): Box =>
  ({
    number,
    compartment: 0,
    x,
    y: 40,
    length: 330,
    width: 170,
    height: 220,
    pose: 'upright',
    turned: false,
    wrong: '',
    ...more,
  }) as Box

beforeEach(async () => {
  fake = server.current = new FakeServer()
  setActivePinia(createPinia())
  await usePlan().open(7)
})

const places = () =>
  (fake.edits().at(-1)!.operations as { value: object[] }[])[0]!.value as Partial<Box>[]

describe('boxes in the locker', () => {
  const answer = ref(null) as Ref<never>
  const bank = ref({ index: 1, title: 'Ostrel' }) as Ref<never>
  let boxes: ReturnType<typeof useBoxes>

  beforeEach(async () => {
    answer.value = { count: 3, boxes: [box(1, 30), box(2, 400)] } as never
    boxes = useBoxes(answer, bank)
    await nextTick()
  })

  it('follow the hand without an edit, and are sent where they are dropped', async () => {
    boxes.move(2, 512.6, 33.3)
    expect(fake.edits()).toHaveLength(0)
    boxes.drop(2)
    await usePlan().settled()
    expect(fake.edits()[0]).toMatchObject({
      label: 'Ostrel: move a battery',
      field: '/candidates/1/places',
      operations: [{ op: 'replace', path: '/candidates/1/places' }],
    })
    // One box found no room: it has a place too once one is moved. Whole millimetres are kept.
    expect(places().map((p) => [p.x, p.y])).toEqual([
      [30, 40],
      [513, 33],
      [25, 25],
    ])
  })

  it('do not leave through the left or the back wall', async () => {
    boxes.move(1, -40, -1)
    boxes.drop(1)
    await usePlan().settled()
    expect(places()[0]).toMatchObject({ x: 0, y: 0 })
  })

  it('change length and width when they are turned', async () => {
    boxes.turn(1)
    expect(boxes.boxes.value[0]).toMatchObject({ length: 170, width: 330, turned: true })
    boxes.turn(1)
    expect(boxes.boxes.value[0]).toMatchObject({ length: 330, width: 170, turned: false })
    boxes.turn(9)
    await usePlan().settled()
    expect(places()[0]).toMatchObject({ turned: false })
  })

  it('are laid, and given back to the search', async () => {
    boxes.lay(2, 'side')
    await usePlan().settled()
    expect(places()[1]).toMatchObject({ pose: 'side', x: 400 })
    boxes.reset()
    await usePlan().settled()
    expect(places()).toEqual([])
  })

  it('stand where the rig’s answer says, whatever the hand had done', async () => {
    boxes.move(1, 700, 40)
    answer.value = { count: 3, boxes: [box(1, 31)] } as never
    await nextTick()
    expect(boxes.boxes.value.map((b) => b.x)).toEqual([31])
  })
})

describe('the picture of a locker', () => {
  const room = { length: 800, width: 400, height: 300, text: '800 × 400 × 300 mm' }

  class Point {
    constructor(
      public x: number,
      public y: number,
    ) {}
    matrixTransform() {
      return this
    }
  }

  const picture = (more: object = {}, boxes = [box(1, 30), box(2, 400)]) => {
    vi.stubGlobal('DOMPoint', Point)
    const props = {
      name: 'Port locker',
      room,
      boxes,
      side: 25,
      over: 50,
      picked: null,
      batteryClass: 'lfp',
      terminalSide: 'ends',
      ...more,
    }
    const made = mount(LockerRoom, { props: props as never })
    const svg = made.get('svg').element as unknown as Record<string, unknown>
    svg.getScreenCTM = () => ({ inverse: () => null })
    for (const g of made.findAll('[data-box]'))
      (g.element as unknown as Record<string, unknown>).setPointerCapture = () => {}
    return made
  }

  it('says of each box where it stands', () => {
    const made = picture({ picked: 2 })
    const names = made.findAll('[data-box]').map((g) => g.attributes('aria-label'))
    expect(names[1]).toBe('Battery 2, 400 mm from the left, 40 mm from the back')
    expect(made.get('[data-box="2"]').attributes('aria-pressed')).toBe('true')
  })

  it('moves a box by the arrow keys and turns it by R', async () => {
    const made = picture()
    const first = made.get('[data-box="1"]')
    await first.trigger('keydown', { key: 'ArrowRight' })
    await first.trigger('keydown', { key: 'ArrowUp' })
    await first.trigger('keydown', { key: 'r' })
    await first.trigger('keydown', { key: 'x' })
    expect(made.emitted('move')).toEqual([
      [1, 35, 40],
      [1, 30, 35],
    ])
    expect(made.emitted('drop')).toEqual([[1], [1]])
    expect(made.emitted('turn')).toEqual([[1]])
  })

  it('drags a box from where it was grabbed, and catches at the clearances', async () => {
    const made = picture()
    const g = made.get('[data-box="1"]')
    const at = (x: number, y: number) => ({ clientX: x, clientY: y, pointerId: 1 })
    await g.trigger('pointerdown', at(50, 60))
    await g.trigger('pointermove', at(150, 100))
    // 8 mm beside the clearance of 25 mm on the left, and at the wall opposite.
    await g.trigger('pointermove', at(37, 60))
    await g.trigger('pointermove', at(470, 230))
    await g.trigger('pointerup', at(470, 230))
    expect(made.emitted('pick')).toEqual([[1]])
    expect(made.emitted('move')).toEqual([
      [1, 130, 80],
      [1, 25, 40],
      [1, 445, 205],
    ])
    expect(made.emitted('drop')).toEqual([[1]])
    await g.trigger('pointermove', at(10, 10))
    expect(made.emitted('move')).toHaveLength(3)
  })

  it('does not send a box that was only touched', async () => {
    const made = picture()
    const g = made.get('[data-box="2"]')
    await g.trigger('pointerdown', { clientX: 410, clientY: 50, pointerId: 1 })
    await g.trigger('pointerup', { clientX: 410, clientY: 50, pointerId: 1 })
    expect(made.emitted('drop')).toBeUndefined()
  })

  it('shows the terminals inside of a standing box, turned with it, and of no lying one', () => {
    const ends = (more: Partial<Box>) =>
      picture({}, [box(1, 100, more)])
        .findAll('circle')
        .map((c) => [Number(c.attributes('cx')), Number(c.attributes('cy'))])
    expect(ends({})).toEqual([
      [100 + 0.16 * 170, 125],
      [430 - 0.16 * 170, 125],
    ])
    const turned = ends({ turned: true, length: 170, width: 330 })
    expect(turned.map(([x]) => x)).toEqual([185, 185])
    expect(turned[1]![1]! - turned[0]![1]!).toBeCloseTo(330 - 2 * 0.16 * 170)
    expect(ends({ pose: 'side' })).toEqual([])
  })
})
