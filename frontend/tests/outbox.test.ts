import { createOutbox, type Outcome, type Unsent, type UnsentEdit } from '@/stores/outbox'
import { createShelf } from '@/stores/shelf'
import { describe, expect, it, vi } from 'vitest'
import { settle } from './fakeServer'

let made = 0
const typed = (field: string, value: string): UnsentEdit => ({
  operations: [{ op: 'replace', path: field, value }],
  label: field,
  field,
  key: `k${made++}`,
  rig: 7,
})

function queueOf(send: (edit: UnsentEdit) => Promise<Outcome>) {
  const deliver = (edit: Unsent) => send(edit as UnsentEdit)
  const idle = vi.fn()
  const failed = vi.fn()
  const slow = vi.fn()
  const undo = vi.fn(async () => {})
  const tab = () => 'here'
  return {
    queue: createOutbox({
      deliver,
      undo,
      idle,
      failed,
      slow,
      shelf: createShelf(() => localStorage),
      tab,
    }),
    idle,
    failed,
    slow,
    undo,
  }
}

const stored = () => localStorage.getItem('vast-harbor-unsent-here')

/** A send whose answers come when they are let go. */
function slow() {
  const sent: UnsentEdit[] = []
  const answers: (() => void)[] = []
  const send = (edit: UnsentEdit) => {
    sent.push(edit)
    return new Promise<Outcome>((done) => answers.push(() => done('stored')))
  }
  return { sent, send, answer: async () => (answers.shift()!(), await settle()) }
}

describe('the outbox', () => {
  it('sends one edit after the other, in their order', async () => {
    const { sent, send, answer } = slow()
    const { queue } = queueOf(send)
    queue.push(typed('/a', '1'))
    queue.push(typed('/b', '2'))
    await settle()
    expect(sent.map((e) => e.field)).toEqual(['/a'])
    await answer()
    expect(sent.map((e) => e.field)).toEqual(['/a', '/b'])
  })

  it('says once that an answer takes long, and nothing of one that does not', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const { send, answer } = slow()
    const { queue, slow: told } = queueOf(send)
    queue.push(typed('/a', '1'))
    await vi.advanceTimersByTimeAsync(900)
    expect(told).not.toHaveBeenCalled()
    await vi.advanceTimersByTimeAsync(200)
    expect(told).toHaveBeenCalledTimes(1)
    vi.useRealTimers()
    await answer()
    queue.push(typed('/b', '2'))
    await settle()
    await answer()
    expect(told).toHaveBeenCalledTimes(1)
  })

  it('lets a newer edit take the place of one of the same field that waits', async () => {
    const { sent, send, answer } = slow()
    const { queue } = queueOf(send)
    queue.push(typed('/a', '1'))
    await settle()
    queue.push(typed('/b', '2'))
    queue.push(typed('/b', '23'))
    await answer()
    expect(sent.map((e) => e.operations[0]!.value)).toEqual(['1', '23'])
  })

  it('never lets an edit overtake one of another field', async () => {
    const { sent, send, answer } = slow()
    const { queue } = queueOf(send)
    for (const [field, value] of [
      ['/a', '1'],
      ['/b', '2'],
      ['/a', '3'],
    ] as const) {
      queue.push(typed(field, value))
    }
    await settle()
    for (let i = 0; i < 3; i++) await answer()
    expect(sent.map((e) => e.operations[0]!.value)).toEqual(['1', '2', '3'])
  })

  it('keeps steps and choices apart, though they have no field', async () => {
    const send = vi.fn(async () => 'stored' as const)
    const { queue } = queueOf(send)
    queue.push({ ...typed('', '1'), label: 'one' })
    queue.push({ ...typed('', '2'), label: 'two' })
    await queue.settled()
    expect(send).toHaveBeenCalledTimes(2)
  })

  it('tells of a failure and goes on with what waits', async () => {
    const send = vi.fn(async (edit: UnsentEdit) => {
      if (edit.field === '/a') throw new Error('lost')
      return 'stored' as const
    })
    const { queue, failed, idle } = queueOf(send)
    queue.push(typed('/a', '1'))
    queue.push(typed('/b', '2'))
    await queue.settled()
    await settle()
    expect(failed).toHaveBeenCalledTimes(1)
    expect(send).toHaveBeenCalledTimes(2)
    expect(idle).toHaveBeenCalledTimes(1)
  })

  it('is busy until the last answer', async () => {
    const { send, answer } = slow()
    const { queue, idle } = queueOf(send)
    queue.push(typed('/a', '1'))
    queue.push(typed('/b', '2'))
    await settle()
    await answer()
    expect(queue.busy()).toBe(true)
    expect(idle).not.toHaveBeenCalled()
    await answer()
    expect(queue.busy()).toBe(false)
    expect(idle).toHaveBeenCalledTimes(1)
  })

  it('keeps what nobody answers, in order, and sends it by itself later', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const outcomes: Outcome[] = ['unanswered', 'unanswered']
    const send = vi.fn(async (edit: UnsentEdit) => (void edit, outcomes.shift() ?? 'stored'))
    const { queue } = queueOf(send)
    await queue.push(typed('/a', '1'))
    await queue.push(typed('/b', '2'))
    await queue.push({ ...typed('', '3'), label: 'a row' })
    expect([queue.count.value, queue.unanswered.value]).toEqual([3, true])
    expect(JSON.parse(stored()!).map((e: UnsentEdit) => e.operations[0]!.value)).toEqual([
      '1',
      '2',
      '3',
    ])
    expect(send).toHaveBeenCalledTimes(1)
    await vi.advanceTimersByTimeAsync(600)
    expect(send).toHaveBeenCalledTimes(2)
    await vi.advanceTimersByTimeAsync(1100)
    expect(send.mock.calls.map(([e]) => e.operations[0]!.value)).toEqual(['1', '1', '1', '2', '3'])
    expect([queue.count.value, queue.unanswered.value, stored()]).toEqual([0, false, null])
    vi.useRealTimers()
  })

  it('asks ever more seldom while nobody answers', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const send = vi.fn(async () => 'unanswered' as const)
    const { queue } = queueOf(send)
    await queue.push(typed('/a', '1'))
    await vi.advanceTimersByTimeAsync(20_000)
    expect(send.mock.calls.length).toBeLessThan(8)
    vi.useRealTimers()
  })

  it('goes on over a reload with what was left, once, and takes over what another window left', async () => {
    const lost = queueOf(async () => 'unanswered')
    await lost.queue.push(typed('/a', '1'))
    localStorage.setItem('vast-harbor-unsent-gone', JSON.stringify([typed('/b', '2')]))
    const send = vi.fn(async (edit: UnsentEdit) => (void edit, 'stored' as const))
    const { queue } = queueOf(send)
    await queue.adopt('here')
    expect(queue.left()).toEqual(['gone'])
    await queue.adopt('gone')
    expect(send.mock.calls.map(([e]) => e.field)).toEqual(['/a', '/b'])
    expect(queue.left()).toEqual([])
  })

  it('takes back the last that waits, of the rig that is meant; what was sent when it is stored', async () => {
    const outcomes: Outcome[] = ['unanswered']
    const { queue, undo } = queueOf(async () => outcomes.shift() ?? 'stored')
    await queue.push(typed('/a', '1'))
    // Typed on, it is one step with what was sent.
    await queue.push(typed('/a', '12'))
    await queue.push(typed('/b', '2'))
    await queue.push({ ...typed('/c', '3'), rig: 8 })
    expect(queue.takeBack(7)!.field).toBe('/b')
    expect(queue.takeBack(7)).toMatchObject({ field: '/a', undone: true })
    expect(queue.takeBack(7)).toBeUndefined()
    expect(queue.count.value).toBe(2)
    await queue.again()
    expect(undo).toHaveBeenCalledOnce()
    expect(queue.count.value).toBe(0)
  })

  it('goes on sending when what waited was all taken back', async () => {
    const outcomes: Outcome[] = ['unanswered']
    const { queue } = queueOf(async () => outcomes.shift() ?? 'stored')
    await queue.push(typed('/a', '1'))
    queue.drop(queue.entries[0]!.key)
    await queue.push(typed('/b', '2'))
    expect(queue.count.value).toBe(0)
  })
})
