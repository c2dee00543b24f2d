import { phrase } from '@/phrases/charging'
import { usePlan } from '@/stores/plan'
import { computed } from 'vue'
import { FRESH, KINDS } from './kinds'

const MOST = 12

/** The sources of the rig: put in, taken out. */
export function useSources() {
  const plan = usePlan()
  const sources = computed(() => plan.rig!.sources)
  const full = computed(() => plan.document.sources.length >= MOST)

  function add(kind: string) {
    const taken = new Set(plan.document.sources.map((s) => s.id))
    let n = 1
    while (taken.has(`${kind}-${n}`)) n++
    const value = { id: `${kind}-${n}`, kind, ...FRESH[kind] }
    const name = KINDS.find((k) => k.key === kind)!.name
    return plan.edit(phrase('charging.use_sources.add_source', { name }), {
      op: 'add',
      path: '/sources/-',
      value,
    })
  }

  /** A source goes with the remedies that were chosen for it. */
  function remove(index: number) {
    const source = plan.document.sources[index]!
    const fixes = plan.document.candidates.flatMap((c, k) =>
      c.fixes.some((f) => f.source === source.id)
        ? [
            {
              op: 'replace' as const,
              path: `/candidates/${k}/fixes`,
              value: c.fixes.filter((f) => f.source !== source.id),
            },
          ]
        : [],
    )
    return plan.edit(phrase('charging.use_sources.remove_source'), ...fixes, {
      op: 'remove',
      path: `/sources/${index}`,
    })
  }

  return { sources, full, add, remove }
}
