import { phrase } from '@/phrases/day'
import { usePlan } from '@/stores/plan'
import { computed, ref, shallowRef } from 'vue'
import type { Load } from '@/api/rigFile'
import { useLoads } from '@/stores/useLoads'

export type Block = [number, number]
export type Grip = 'move' | 'start' | 'end' | 'draw' | 'copy'

const STEP = 0.25
const SHORTEST = 0.25
const WHAT: Record<Grip, string> = {
  move: phrase('day.use_blocks.move_time'),
  start: phrase('day.use_blocks.change_time'),
  end: phrase('day.use_blocks.change_time'),
  draw: phrase('day.use_blocks.add_time'),
  copy: phrase('day.use_blocks.copy_time'),
}
const snap = (hours: number) => Math.round(hours / STEP) * STEP
const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))

export function clock(hours: number): string {
  const minutes = Math.round(hours * 60)
  const hour = minutes === 1440 ? 24 : Math.floor(minutes / 60) % 24
  return `${String(hour).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}

/** The blocks of one lane: drawn, moved, stretched, copied and removed by pointer and by keyboard. */
export function useBlocks(
  load: () => Load,
  index: () => number,
  stored: () => Block[],
  track: () => HTMLElement | null,
) {
  const plan = usePlan()
  const { shown, onDay, timesPath } = useLoads()
  const held = shallowRef<Block[] | null>(null)
  const dragging = ref(false)
  const blocks = computed(() => held.value ?? stored())
  let grip: Grip = 'move'
  let which = 0
  let sent = false
  let from = 0
  let before: Block[] = []

  function hourAt(event: PointerEvent): number {
    const box = track()!.getBoundingClientRect()
    return clamp(((event.clientX - box.left) / box.width) * 24, 0, 24)
  }

  /** Hand the blocks over; until the server has answered what they mean, they are shown as they are held. */
  function send(next: Block[], what: string): Promise<void> {
    held.value = next
    const sorted = [...next].sort((a, b) => a[0] - b[0])
    if (onDay(load()) === 'off') {
      const path = `/day/loads/${index()}/on/${shown.value}`
      const value = { use: 'times', windows: sorted }
      return plan.set(`${load().name}: ${what}`, path, [{ op: 'add', path, value }])
    }
    const at = timesPath(load(), index())
    return plan.set(`${load().name}: ${what}`, `${at}/windows`, [
      { op: 'replace', path: `${at}/use`, value: 'times' },
      { op: 'replace', path: `${at}/windows`, value: sorted },
    ])
  }

  async function commit(next: Block[], what: string) {
    await send(next, what)
    if (held.value === next) held.value = null
  }

  function grab(event: PointerEvent, on: Grip, i: number) {
    if (event.button !== 0) return
    event.preventDefault()
    event.stopPropagation()
    ;(event.target as HTMLElement).closest<HTMLElement>('[data-block]')?.focus()
    track()!.setPointerCapture(event.pointerId)
    // What is on screen, not what the server last answered: it may lag behind the hand.
    before = blocks.value.map((b) => [...b] as Block)
    from = hourAt(event)
    grip = on
    which = i
    if (on === 'draw') {
      const start = clamp(snap(from), 0, 24 - SHORTEST)
      before.push([start, start + SHORTEST])
      which = before.length - 1
    } else if (on === 'move' && event.altKey) {
      before.push([...before[i]!] as Block)
      which = before.length - 1
      grip = 'copy'
    }
    held.value = before
    sent = false
    dragging.value = true
    window.addEventListener('keydown', escape, true)
  }

  /** Escape lets go without effect: what the hand did on the way is taken back. */
  async function escape(event: KeyboardEvent) {
    if (event.key !== 'Escape' || !dragging.value) return
    event.preventDefault()
    event.stopPropagation()
    window.removeEventListener('keydown', escape, true)
    dragging.value = false
    held.value = null
    await plan.settled()
    if (sent) await plan.step('undo')
  }

  function moved([start, end]: Block, by: number): Block {
    const shift = clamp(snap(by), -start, 24 - end)
    return [start + shift, end + shift]
  }

  function drag(event: PointerEvent) {
    if (!dragging.value) return
    const now = hourAt(event)
    const [start, end] = before[which]!
    const next = before.map((b) => [...b] as Block)
    if (grip === 'move' || grip === 'copy') next[which] = moved([start, end], now - from)
    else if (grip === 'start') next[which] = [clamp(snap(now), 0, end - SHORTEST), end]
    else if (grip === 'end') next[which] = [start, clamp(snap(now), start + SHORTEST, 24)]
    else {
      const to = snap(now)
      next[which] =
        to >= start ? [start, clamp(to, start + SHORTEST, 24)] : [clamp(to, 0, 24), start]
    }
    if (JSON.stringify(next) === JSON.stringify(held.value)) return
    sent = true
    send(next, WHAT[grip])
  }

  async function release() {
    window.removeEventListener('keydown', escape, true)
    if (!dragging.value) return
    dragging.value = false
    const last = held.value
    if (last && (grip === 'draw' || grip === 'copy')) send(last, WHAT[grip])
    await plan.settled()
    if (!dragging.value) held.value = null
  }

  function change(i: number, next: Block | null, what: string) {
    const list = blocks.value.map((b) => [...b] as Block)
    if (next) list[i] = next
    else list.splice(i, 1)
    return commit(list, what)
  }

  function key(event: KeyboardEvent, i: number) {
    const [start, end] = blocks.value[i]!
    const by = event.key === 'ArrowRight' ? STEP : event.key === 'ArrowLeft' ? -STEP : 0
    if (by && event.shiftKey)
      change(
        i,
        [start, clamp(end + by, start + SHORTEST, 24)],
        phrase('day.use_blocks.change_time'),
      )
    else if (by) change(i, moved([start, end], by), phrase('day.use_blocks.move_time'))
    else if (event.key === 'Delete' || event.key === 'Backspace') remove(i)
    else if (event.key === 'c') copy(i)
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  function copy(i: number) {
    const [start, end] = blocks.value[i]!
    const length = end - start
    const to = end + length <= 24 ? end + STEP : 0
    return commit(
      [...blocks.value, [to, Math.min(24, to + length)]],
      phrase('day.use_blocks.copy_time'),
    )
  }

  function add() {
    return commit([...blocks.value, [18, 19]], phrase('day.use_blocks.add_time'))
  }

  function remove(i: number) {
    return change(i, null, phrase('day.use_blocks.remove_time'))
  }

  return { blocks, dragging, grab, drag, release, key, copy, remove, add }
}
