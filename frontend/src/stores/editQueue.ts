import type { Operation } from '@/api/client'

export interface Edit {
  operations: Operation[]
  label: string
  /** The one field that is typed into; empty for a step, a choice, a row. */
  field: string
}

interface Handlers {
  send: (edit: Edit) => Promise<void>
  /** Nothing waits any more. */
  idle: () => void
  /** Something could not be done. */
  failed: () => void
}

/**
 * Everything that changes the rig, one after the other. A newer edit of a field takes the place of one of the
 * same field that still waits.
 */
export function createEditQueue({ send, idle, failed }: Handlers) {
  const edits: Edit[] = []
  let turn: Promise<void> = Promise.resolve()
  let waiting = 0

  /** Do something when all before it is done: at once where nothing is, before anything is drawn again. */
  function inTurn(work: () => Promise<void>): Promise<void> {
    const done = waiting ? turn.then(work) : (async () => work())()
    waiting++
    turn = done.catch(failed).finally(() => {
      waiting--
      if (!waiting) idle()
    })
    return turn
  }

  async function sendNext() {
    const next = edits.shift()
    if (next) await send(next)
  }

  function push(edit: Edit): Promise<void> {
    const last = edits.at(-1)
    if (edit.field && last?.field === edit.field) edits[edits.length - 1] = edit
    else edits.push(edit)
    return inTurn(sendNext)
  }

  return {
    push,
    inTurn,
    /** When all so far has been answered. */
    settled: async () => {
      await turn
    },
    busy: () => waiting > 0,
  }
}
