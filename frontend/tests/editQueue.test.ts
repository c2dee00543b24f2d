import { createEditQueue, type Edit } from '@/stores/editQueue'
import { describe, expect, it, vi } from 'vitest'
import { settle } from './fakeServer'

const typed = (field: string, value: string): Edit => ({
  operations: [{ op: 'replace', path: field, value }],
  label: field,
  field,
})

function queueOf(send: (edit: Edit) => Promise<void>) {
  const idle = vi.fn()
  const failed = vi.fn()
  return { queue: createEditQueue({ send, idle, failed }), idle, failed }
}

/** A send whose answers come when they are let go. */
function slow() {
  const sent: Edit[] = []
  const answers: (() => void)[] = []
  const send = (edit: Edit) => {
    sent.push(edit)
    return new Promise<void>((done) => answers.push(done))
  }
  return { sent, send, answer: async () => (answers.shift()!(), await settle()) }
}

describe('the edit queue', () => {
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
    const send = vi.fn(async () => {})
    const { queue } = queueOf(send)
    queue.push({ operations: [], label: 'one', field: '' })
    queue.push({ operations: [], label: 'two', field: '' })
    await queue.settled()
    expect(send).toHaveBeenCalledTimes(2)
  })

  it('tells of a failure and goes on with what waits', async () => {
    const send = vi.fn(async (edit: Edit) => {
      if (edit.field === '/a') throw new Error('lost')
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
})
