import { usePlan } from '@/stores/plan'
import { computed, ref } from 'vue'

/** One candidate of those that can be built, chosen by hand or the first. */
export function useOneBank() {
  const plan = usePlan()
  const chosen = ref('')
  const built = computed(() => plan.rig!.banks.candidates.filter((c) => c.figures.usable_wh))
  const bank = computed(() => built.value.find((c) => c.id === chosen.value) ?? built.value[0])
  return { chosen, built, bank }
}
