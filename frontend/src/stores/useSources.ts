import { phrase } from '@/phrases/shared'
import { usePlan } from '@/stores/plan'
import { useRows } from '@/stores/useRows'
import { computed } from 'vue'
import type { SourceKind } from '@/ui/sourceKinds'

/** What a new source starts with. */
const FRESH: Record<string, Record<string, unknown>> = {
  mains: { amps: 20, absorption_v: 14.4, float_v: 13.6 },
  solar: { watts: 200, absorption_v: 14.4, float_v: 13.6, adjustable: true },
  engine: { link: 'dc_dc', amps: 30, alternator_a: 120, wakes: true, adjustable: true },
  generator: { watts: 1000, litres_per_h: 0.6, litre_price: 2 },
  stream: { monthly_w: [30, 30, 30, 25, 20, 15, 15, 15, 20, 25, 30, 30] },
  upkeep: { amps: 2, hours: 3 },
}
const MOST = 12

/** The sources of the rig: put in, taken out. */
export function useSources() {
  const plan = usePlan()
  const sources = computed(() => plan.rig!.sources)
  const full = computed(() => plan.document.sources.length >= MOST)
  const rows = useRows(
    () => '/sources',
    () => plan.document.sources,
  )

  function add({ key: kind, name }: SourceKind) {
    const value = { id: rows.fresh(`${kind}-`, 1), kind, ...FRESH[kind] }
    return rows.add(phrase('shared.use_sources.add_source', { name }), value)
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
    return rows.remove(phrase('shared.use_sources.remove_source'), index, ...fixes)
  }

  return { sources, full, add, remove }
}
