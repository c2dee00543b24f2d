import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { computed } from 'vue'

export interface ModelName {
  model: string
  title: string
  battery_class: string
}

/** Every battery by its name: the catalogue's, then the owner's own. */
export function useModels() {
  const plan = usePlan()
  const reference = useReference()
  const models = computed<ModelName[]>(() => [
    ...(reference.data?.catalogue ?? []),
    ...plan.document.own_models.map((m) => ({
      model: String(m.id),
      title: `${m.maker ?? ''} ${m.name}`.trim(),
      battery_class: String(m.battery_class),
    })),
  ])
  const ofClass = (key: string) => models.value.filter((m) => m.battery_class === key)
  return { models, ofClass }
}
