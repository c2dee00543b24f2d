import { phrase } from '@/phrases/shared'
import type { CandidateView, Schemas } from '@/api/client'
import { usePlan } from './plan'
import { useRows } from './useRows'
import { computed } from 'vue'

const MOST = 8

/** The candidates: adding, changing and removing them. */
export function useBanks() {
  const plan = usePlan()
  const candidates = computed(() => plan.rig!.banks.candidates)
  const full = computed(() => candidates.value.length >= MOST)
  const rows = useRows(
    () => '/candidates',
    () => candidates.value,
  )

  function freshId(prefix: string): string {
    const free = !candidates.value.some((c) => c.id === prefix)
    return free ? prefix : rows.fresh(`${prefix}-`, 2)
  }

  function add(batteryClass: string, model: string | null, title: string) {
    const value = { id: freshId(model ?? batteryClass), battery_class: batteryClass, model }
    return rows.add(phrase('shared.use_banks.add', { title }), value)
  }

  /** A bank that was found, with its strings as they were found. */
  function addFound(
    found: Pick<Schemas['FoundView'], 'title' | 'model' | 'battery_class' | 'series' | 'parallel'>,
  ) {
    const { title, model, battery_class, series, parallel } = found
    const value = { id: freshId(model), battery_class, model, series, parallel }
    return rows.add(phrase('shared.use_banks.add', { title }), value)
  }

  function set(c: CandidateView, field: string, value: unknown, label: string) {
    return rows.change(`${c.title}: ${label}`, c.index, field, value)
  }

  function remove(c: CandidateView) {
    return rows.remove(phrase('shared.use_banks.remove', { title: c.title }), c.index)
  }

  function addExtra(c: Pick<CandidateView, 'index' | 'title'>) {
    const extras = useRows(
      () => `/candidates/${c.index}/extras`,
      () => plan.document.candidates[c.index]?.extras ?? [],
    )
    const value = { id: extras.fresh('x'), name: '', price: 0 }
    return extras.add(phrase('shared.use_banks.add_extra', { title: c.title }), value)
  }

  return { candidates, full, add, addFound, set, remove, addExtra }
}
