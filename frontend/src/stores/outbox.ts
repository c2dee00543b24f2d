import { type Shelf } from './shelf'
import type { Operation } from '@/api/client'
import { computed, shallowReactive, ref } from 'vue'

export interface Edit {
  operations: Operation[]
  label: string
  /** The one field that is typed into, or dragged; empty for a step, a choice, a row. */
  field: string
}

interface Waiting {
  /** Of this one alone: sent twice, it is done once. */
  key: string
  label: string
  rig: number
  /** It may be stored, and its owner wants it undone. */
  undone?: boolean
}

/** An edit that is not stored yet; its rows are named by id. */
export type UnsentEdit = Edit & Waiting

/** A rig that is not made yet: a new one, a copy of `rig`, or one from a file. */
export interface UnsentRig extends Waiting {
  make: 'new' | 'copy' | 'file'
  /** What is sent. */
  body: string
}

export type Unsent = UnsentEdit | UnsentRig
export const isRig = (entry: Unsent): entry is UnsentRig => 'make' in entry
export const isEdit = (entry: Unsent): entry is UnsentEdit => !isRig(entry)

/** What became of an edit; nobody knows where nobody answered. */
export type Outcome = 'stored' | 'refused' | 'unanswered'

interface Handlers {
  deliver: (edit: Unsent) => Promise<Outcome>
  /** Take a stored edit back. */
  undo: (edit: UnsentEdit) => Promise<void>
  /** Nothing waits any more. */
  idle: () => void
  /** Something could not be done. */
  failed: () => void
  /** What was sent has not been answered for a while. */
  slow: () => void
  /** Where it is kept over a reload. */
  shelf: Shelf
  /** Of this window. */
  tab: () => string
}

const PREFIX = 'vast-harbor-unsent-'
/** After so long it is said that it takes long [ms]. */
const SLOW = 1000
/** How long to wait before the next try [ms]: longer each time. */
const WAITS = [500, 1000, 2000, 4000, 8000, 15000]

/**
 * Everything that changes or makes a rig, in order, one after the other. What is not answered stays, over a reload too,
 * and is sent again by itself. A newer edit of a field takes the place of one of the same field that waits.
 */
export function createOutbox({ deliver, undo, idle, failed, slow, shelf, tab }: Handlers) {
  const entries = shallowReactive<Unsent[]>([])
  const unanswered = ref(false)
  /** Keys of those of which the server cannot have heard. */
  const unheard = new Set<string>()
  /** Windows whose unsent edits are here, and still in the browser's storage under their names. */
  const takenOver: string[] = []
  let turn: Promise<void> = Promise.resolve()
  let waiting = 0
  let sending: Unsent | undefined
  let tries = 0
  let timer = 0

  const place = (of = tab()) => `${PREFIX}${of}`

  function keep() {
    let kept = true
    if (entries.length) kept = shelf.write(place(), JSON.stringify(entries))
    else shelf.drop(place())
    // What finds no room here stays where it was.
    if (kept) for (const other of takenOver.splice(0)) shelf.drop(place(other))
  }

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
    const next = entries[0]
    if (!next) return
    sending = next
    unheard.delete(next.key)
    const patience = window.setTimeout(slow, SLOW)
    const outcome = await deliver(next)
      .catch((error) => {
        // What cannot be sent at all does not hold up the rest.
        settle(next)
        throw error
      })
      .finally(() => {
        sending = undefined
        clearTimeout(patience)
      })
    if (outcome === 'unanswered') {
      unanswered.value = true
      clearTimeout(timer)
      timer = window.setTimeout(again, WAITS[Math.min(tries++, WAITS.length - 1)])
      return
    }
    tries = 0
    unanswered.value = false
    // It may have been wanted undone on its way.
    const undone = entries.find(({ key }) => key === next.key)?.undone
    settle(next)
    if (undone && outcome === 'stored' && isEdit(next)) await undo(next)
  }

  const placeOf = ({ key }: Unsent) => entries.findIndex((entry) => entry.key === key)

  function settle(entry: Unsent) {
    const at = placeOf(entry)
    if (at >= 0) entries.splice(at, 1)
    unheard.delete(entry.key)
    // Nothing is left that could be answered.
    if (!entries.length) unanswered.value = false
    keep()
  }

  /** Send what waits, in order, until nobody answers. */
  function again(): Promise<void> {
    clearTimeout(timer)
    return inTurn(async () => {
      do await sendNext()
      while (entries.length && !unanswered.value)
    })
  }

  function push(edit: Unsent): Promise<void> {
    const last = entries.at(-1)
    const same =
      isEdit(edit) &&
      edit.field &&
      last &&
      isEdit(last) &&
      last.field === edit.field &&
      last.rig === edit.rig &&
      !last.undone
    const instead = same && last.key !== sending?.key
    // In place of one that may be stored: it is one step with it.
    if (!instead || unheard.has(last.key)) unheard.add(edit.key)
    if (instead) entries[entries.length - 1] = edit
    else entries.push(edit)
    keep()
    // While nobody answers, it waits its turn behind the others.
    return unanswered.value ? Promise.resolve() : inTurn(sendNext)
  }

  /** Take over what a window left unsent; no other window does. */
  function adopt(of: string) {
    const left = JSON.parse(shelf.read(place(of)) ?? '[]') as Unsent[]
    const known = new Set(entries.map((e) => e.key))
    entries.push(...left.filter((e) => !known.has(e.key)))
    if (of !== tab()) takenOver.push(of)
    keep()
    return entries.length ? again() : Promise.resolve()
  }

  /**
   * Take back the last edit of a rig that waits: at once where the server cannot have heard of it, otherwise as soon
   * as it answers; undefined where none waits.
   */
  function takeBack(rig: number): UnsentEdit | undefined {
    const last = entries
      .filter(isEdit)
      .reverse()
      .find((e) => e.rig === rig && !e.undone)
    if (!last) return undefined
    if (unheard.has(last.key)) {
      settle(last)
      return last
    }
    const undone = { ...last, undone: true }
    entries[placeOf(last)] = undone
    keep()
    return undone
  }

  return {
    push,
    inTurn,
    again,
    adopt,
    takeBack,
    /** Windows that left something. */
    left: () => shelf.keys().flatMap((k) => (k.startsWith(PREFIX) ? [k.slice(PREFIX.length)] : [])),
    /** Whether what waits would be gone when the page is left. */
    held: shelf.holds(PREFIX),
    /** When all so far has been answered. */
    settled: async () => {
      await turn
    },
    busy: () => waiting > 0,
    entries,
    /** Send one no more. */
    drop: (key: string) => {
      const found = entries.find((e) => e.key === key && key !== sending?.key)
      if (found) settle(found)
    },
    count: computed(() => entries.length),
    unanswered,
  }
}
