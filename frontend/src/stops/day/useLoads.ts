import type { Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed, nextTick } from 'vue'

export interface Load {
  id: string
  name: string
  supply: string
  draw: { value: number; unit: string }
  use: string
  quantity: number
}

/** The loads of the day as rows, and adding to them. */
export function useLoads() {
  const plan = usePlan()
  const loads = computed(() => plan.document.day.loads as unknown as Load[])
  const figures = computed(() => new Map(plan.rig!.day.loads.map((l) => [l.id, l])))

  function freshIds(count: number): string[] {
    const taken = new Set(loads.value.map((l) => l.id))
    const out: string[] = []
    for (let n = loads.value.length + 1; out.length < count; n++) {
      if (!taken.has(`load-${n}`)) out.push(`load-${n}`)
    }
    return out
  }

  async function focus(id: string) {
    await nextTick()
    const field = document.querySelector<HTMLInputElement>(`[data-load="${id}"] input`)
    field?.focus()
    field?.select()
  }

  async function add(entry?: Schemas['ApplianceView']) {
    const id = freshIds(1)[0]!
    const value = entry
      ? {
          id,
          name: entry.name,
          supply: entry.supply,
          draw: entry.draw,
          use: entry.use,
          hours: entry.hours,
          uses: entry.uses,
          minutes: entry.minutes,
          duty: entry.duty,
          starts_at: entry.starts_at,
        }
      : { id, name: `Load ${id.slice(5)}`, draw: '0 W', hours: 1 }
    await plan.edit(`add ${value.name}`, { op: 'add', path: '/day/loads/-', value })
    await focus(id)
  }

  /** Add loads as they stand in a rig file, as one edit. */
  function addMany(entries: Record<string, unknown>[]) {
    const ids = freshIds(entries.length)
    const operations = entries.map((entry, i) => ({
      op: 'add' as const,
      path: '/day/loads/-',
      value: { ...entry, id: ids[i] },
    }))
    return plan.edit('add loads from a file', ...operations)
  }

  function remove(index: number) {
    plan.edit(`remove ${loads.value[index]?.name}`, { op: 'remove', path: `/day/loads/${index}` })
  }

  return { loads, figures, add, addMany, remove }
}
