import { shelf } from '@/stores/shelf'
import { usePlan } from '@/stores/plan'
import { computed, ref, watch } from 'vue'

interface Kept {
  hidden: string[]
  pinned: string[]
  /** Groups of rows that are open. */
  open: string[]
  sort: string
  down: boolean
  reference: string
}
const NOTHING: Kept = { hidden: [], pinned: [], open: [], sort: '', down: false, reference: '' }

/** Which columns of the comparison are shown, and in which order; kept for each rig over reloads. */
export function useColumns() {
  const plan = usePlan()
  const key = () => `vast-harbor-columns-${plan.rig?.id}`
  const read = (): Kept => ({ ...NOTHING, ...JSON.parse(shelf.read(key()) ?? '{}') })
  const kept = ref<Kept>(read())
  watch(
    () => plan.rig?.id,
    () => (kept.value = read()),
  )
  watch(kept, (now) => shelf.write(key(), JSON.stringify(now)), { deep: true })

  /** The one that was found and is no candidate comes first: it may be the verdict's, and is seen at once. */
  const all = computed(() =>
    plan
      .rig!.compare.compared_banks.map((c, i) => ({ ...c, at: i }))
      .sort((a, b) => Number(b.index < 0) - Number(a.index < 0)),
  )
  const row = computed(() => plan.rig!.compare.rows.find((r) => r.key === kept.value.sort))
  const shown = computed(() => {
    const list = all.value.filter((c) => !kept.value.hidden.includes(c.id))
    const value = (at: number) => row.value?.figures[at]?.value ?? Number.POSITIVE_INFINITY
    if (row.value)
      list.sort((a, b) => (value(a.at) - value(b.at)) * (kept.value.down ? -1 : 1) || a.at - b.at)
    const pinned = (id: string) => (kept.value.pinned.includes(id) ? 0 : 1)
    return list.sort((a, b) => pinned(a.id) - pinned(b.id))
  })
  const hidden = computed(() => all.value.filter((c) => kept.value.hidden.includes(c.id)))
  const reference = computed(() => shown.value.find((c) => c.id === kept.value.reference)?.id ?? '')

  function toggle(list: 'hidden' | 'pinned' | 'open', id: string) {
    const now = kept.value[list]
    kept.value[list] = now.includes(id) ? now.filter((x) => x !== id) : [...now, id]
  }

  /** Sort by a row: its better end first, then the other way round, then in its own order. */
  function sortBy(key: string, better: string) {
    const first = better === 'high'
    if (kept.value.sort !== key) kept.value = { ...kept.value, sort: key, down: first }
    else if (kept.value.down === first) kept.value.down = !first
    else kept.value.sort = ''
  }

  return { kept, shown, hidden, reference, toggle, sortBy }
}
