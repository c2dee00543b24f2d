import { phrase } from '@/phrases/shared'
import type { Operation, Schemas } from '@/api/client'
import type { Load, Times } from '@/api/rigFile'
import { usePlan } from './plan'
import { freshIds, useRows } from './useRows'
import { computed, nextTick, ref } from 'vue'

/** The load whose fields are open; none if empty. */
const opened = ref('')

export type OnDay = 'usual' | 'own' | 'off'

/** The loads of the day that is shown as rows, and adding to them. */
export function useLoads() {
  const plan = usePlan()
  const loads = computed(() => plan.document.day.loads)
  const rows = useRows(
    () => '/day/loads',
    () => loads.value,
  )
  const figures = computed(() => new Map(plan.rig!.day.loads.map((l) => [l.id, l])))
  const shown = computed(() => plan.rig!.day.type)

  /** Whether a load runs as usual on the day that is shown, at times of its own, or not. */
  function onDay(load: Load): OnDay {
    const given = load.on[shown.value]
    if (given === null) return 'off'
    return given ? 'own' : 'usual'
  }

  /** The times that hold on the day that is shown. */
  function timesOf(load: Load): Times {
    return load.on[shown.value] ?? load
  }

  /** JSON pointer of those times. */
  function timesPath(load: Load, index: number): string {
    const at = `/day/loads/${index}`
    return onDay(load) === 'own' ? `${at}/on/${shown.value}` : at
  }

  function setOnDay(load: Load, index: number, to: OnDay) {
    const path = `/day/loads/${index}/on/${shown.value}`
    const { use, hours, uses, minutes, starts_at, windows } = load
    const operation: Operation =
      to === 'usual'
        ? { op: 'remove', path }
        : {
            op: 'add',
            path,
            value: to === 'off' ? null : { use, hours, uses, minutes, starts_at, windows },
          }
    return plan.edit(
      phrase('shared.use_loads.day', { name: load.name, to: to === 'off' ? 'not' : to }),
      operation,
    )
  }

  async function focus(id: string) {
    opened.value = id
    await nextTick()
    const field = document.querySelector<HTMLInputElement>(`[data-load="${id}"] input`)
    field?.focus()
    field?.select()
  }

  async function add(entry?: Schemas['ApplianceView'], quantity?: number) {
    const id = rows.fresh('load-')
    const value = entry
      ? { ...entry.load, id, ...(quantity === undefined ? {} : { quantity }) }
      : { id, name: phrase('shared.use_loads.load', { id: id.slice(5) }), draw: '0 W', hours: 1 }
    await rows.add(
      phrase('shared.use_loads.add', { name: entry?.name ?? phrase('shared.use_loads.a_load') }),
      value,
    )
    // From the list one often follows another; an empty one is filled in next.
    if (!entry) await focus(id)
  }

  /** Add loads as they stand in a rig file, as one edit. */
  function addMany(entries: Record<string, unknown>[]) {
    const ids = freshIds(loads.value, 'load-', loads.value.length + 1, entries.length)
    const values = entries.map((entry, i) => ({ ...entry, id: ids[i] }))
    return rows.add(phrase('shared.use_loads.add_loads_file'), ...values)
  }

  /** The hand goes on to the load that takes its place, else to the one before it, else to the search. */
  async function remove(index: number) {
    const next = loads.value[index + 1]?.id ?? loads.value[index - 1]?.id
    await rows.remove(phrase('shared.use_loads.remove', { loads: loads.value[index]?.name }), index)
    await nextTick()
    const row = next && document.querySelector<HTMLElement>(`[data-load="${next}"] [data-open]`)
    ;(row || document.querySelector<HTMLElement>('[data-new]'))?.focus()
  }

  return {
    loads,
    figures,
    opened,
    shown,
    onDay,
    timesOf,
    timesPath,
    setOnDay,
    add,
    addMany,
    remove,
  }
}
