import { problemsOf, type Problem } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'

/** Edits follow one another quickly; what is asked for apart from the plan waits for a pause [ms]. */
const PAUSE = 150

type Answer<T> = { data?: T; error?: unknown }

/**
 * Something that is computed for the rig as it stands, asked for anew whenever the rig, its log or the
 * question changes. The last answer stays in place until the next one is there.
 */
export function useAsked<T>(
  question: () => string,
  ask: (signal: AbortSignal) => Promise<Answer<T>>,
) {
  const plan = usePlan()
  const answer = shallowRef<T | null>(null)
  const problems = ref<Problem[]>([])
  const asking = ref(false)
  let timer = 0
  let newest = 0
  let leaving = new AbortController()

  async function send() {
    const mine = ++newest
    // What is no longer waited for is given up by the program, too.
    leaving.abort()
    leaving = new AbortController()
    asking.value = true
    const { data, error } = await ask(leaving.signal).catch(() => ({
      data: undefined,
      error: undefined,
    }))
    if (mine !== newest) return
    asking.value = false
    problems.value = data ? [] : problemsOf(error)
    if (data) answer.value = data
  }

  watch(
    [() => plan.rig?.revision, () => plan.rig?.id, () => plan.logged, question],
    (_now, before) => {
      clearTimeout(timer)
      timer = window.setTimeout(send, before[1] === undefined ? 0 : PAUSE)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    clearTimeout(timer)
    newest++
    leaving.abort()
  })

  const problem = computed(() => problems.value[0]?.message ?? '')
  return { answer, problems, problem, asking, again: send }
}
