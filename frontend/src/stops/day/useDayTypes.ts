import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/day'
import type { Operation } from '@/api/client'
import type { DayType } from '@/api/rigFile'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import { useLoads } from '@/stores/useLoads'
import { useRows } from '@/stores/useRows'

export const DAY_KINDS = choicesOf('day.types.kind', {
  off_grid: phrase('day.use_day_types.off_grid_bank_supplies'),
  travelling: phrase('day.use_day_types.travelling_engine_charges'),
  hook_up: phrase('day.use_day_types.hook_up_mains_supplies'),
  laid_up: phrase('day.use_day_types.laid_up_nobody'),
})
export const SEASONS = choicesOf('day.types.season', {
  spring: phrase('day.use_day_types.spring'),
  summer: phrase('day.use_day_types.summer'),
  autumn: phrase('day.use_day_types.autumn'),
  winter: phrase('day.use_day_types.winter'),
})

/** The kinds of day: shown, copied, removed, chosen to plan for. */
export function useDayTypes() {
  const plan = usePlan()
  const { loads } = useLoads()
  const types = computed(() => plan.document.day.types)
  const view = computed(() => plan.rig!.day)
  const here = computed<DayType>(() => types.value[view.value.index]!)
  const at = computed(() => `/day/types/${view.value.index}`)
  const chosen = computed(() => plan.document.plan.day_type === here.value.id)

  const rows = useRows(
    () => '/day/types',
    () => types.value,
  )

  /** A copy of the day that is shown, with all that its loads do otherwise on it; it is shown then. */
  async function copy() {
    const from = here.value
    const id = rows.fresh('day-')
    const operations: Operation[] = [
      rows.adding({
        ...from,
        id,
        name: phrase('day.use_day_types.copy', { name: from.name.slice(0, 33) }),
      }),
    ]
    loads.value.forEach((load, i) => {
      const given = load.on[from.id]
      if (given !== undefined)
        operations.push({ op: 'add', path: `/day/loads/${i}/on/${id}`, value: given })
    })
    await plan.edit(phrase('day.use_day_types.copy_name', { name: from.name }), ...operations)
    await plan.showDay(id)
  }

  async function remove() {
    const { id, name } = here.value
    const operations: Operation[] = [{ op: 'remove', path: at.value }]
    loads.value.forEach((load, i) => {
      if (load.on[id] !== undefined)
        operations.push({ op: 'remove', path: `/day/loads/${i}/on/${id}` })
    })
    if (plan.document.plan.day_type === id)
      operations.push({ op: 'replace', path: '/plan/day_type', value: null })
    await plan.edit(phrase('day.use_day_types.remove', { name }), ...operations)
    await plan.showDay('')
  }

  function planFor(on: boolean) {
    return plan.edit(phrase('day.use_day_types.day_plan'), {
      op: 'replace',
      path: '/plan/day_type',
      value: on ? here.value.id : null,
    })
  }

  return { types, view, here, at, chosen, copy, remove, planFor }
}
