import { phrase } from '@/phrases/shared'
import type { CandidateView, Schemas } from '@/api/client'
import { usePlan } from './plan'
import { computed } from 'vue'

const MOST = 8

/** The candidates: adding, changing and removing them. */
export function useBanks() {
  const plan = usePlan()
  const candidates = computed(() => plan.rig!.banks.candidates)
  const full = computed(() => candidates.value.length >= MOST)

  function freshId(prefix: string): string {
    const taken = new Set(candidates.value.map((c) => c.id))
    if (!taken.has(prefix)) return prefix
    let n = 2
    while (taken.has(`${prefix}-${n}`)) n++
    return `${prefix}-${n}`
  }

  function add(batteryClass: string, model: string | null, title: string) {
    return plan.edit(phrase('shared.use_banks.add', { title }), {
      op: 'add',
      path: '/candidates/-',
      value: { id: freshId(model ?? batteryClass), battery_class: batteryClass, model },
    })
  }

  /** A bank that was found, with its strings as they were found. */
  function addFound(
    found: Pick<Schemas['FoundView'], 'title' | 'model' | 'battery_class' | 'series' | 'parallel'>,
  ) {
    return plan.edit(phrase('shared.use_banks.add', { title: found.title }), {
      op: 'add',
      path: '/candidates/-',
      value: {
        id: freshId(found.model),
        battery_class: found.battery_class,
        model: found.model,
        series: found.series,
        parallel: found.parallel,
      },
    })
  }

  function set(c: CandidateView, field: string, value: unknown, label: string) {
    return plan.edit(`${c.title}: ${label}`, {
      op: 'replace',
      path: `/candidates/${c.index}/${field}`,
      value,
    })
  }

  function remove(c: CandidateView) {
    return plan.edit(phrase('shared.use_banks.remove', { title: c.title }), {
      op: 'remove',
      path: `/candidates/${c.index}`,
    })
  }

  function addExtra(c: Pick<CandidateView, 'index' | 'title'>) {
    const extras = plan.document.candidates[c.index]?.extras ?? []
    const taken = new Set(extras.map((e) => e.id))
    let n = extras.length + 1
    while (taken.has(`x${n}`)) n++
    return plan.edit(phrase('shared.use_banks.add_extra', { title: c.title }), {
      op: 'add',
      path: `/candidates/${c.index}/extras/-`,
      value: { id: `x${n}`, name: '', price: 0 },
    })
  }

  return { candidates, full, add, addFound, set, remove, addExtra }
}
