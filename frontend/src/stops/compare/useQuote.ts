import { shelf } from '@/stores/shelf'
import { phrase } from '@/phrases/compare'
import { api, type Operation, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { computed, ref, shallowRef, watch } from 'vue'

const MOST = 5
const PAUSE = 300

/** A pasted offer, as it is understood; how it becomes a bank of the comparison; and what that changed. */
export function useQuote(says: () => Schemas['TokenView'][]) {
  const plan = usePlan()
  const ui = useUi()
  const key = `vast-harbor-quote-${plan.rig!.id}`
  // What is pasted and not taken in yet is kept over a reload.
  const text = ref(shelf.read(key) ?? '')
  const batteryClass = ref('lfp')
  /** Which of the offers of a list is looked at. */
  const which = ref(0)
  /** By field, what was answered to a question about the text. */
  const answers = ref<Record<string, number>>({})
  const quote = shallowRef<Schemas['QuoteView'] | null>(null)
  const problem = ref('')
  const busy = ref(false)
  const before = shallowRef<Schemas['TokenView'][] | null>(null)
  let timer = 0
  let newest = 0

  watch(
    [text, which],
    ([now], [before]) => {
      if (now !== before && before !== undefined) which.value = 0
      answers.value = {}
    },
    { flush: 'sync' },
  )

  watch(
    [text, batteryClass, which, answers],
    () => {
      shelf.write(key, text.value)
      clearTimeout(timer)
      timer = window.setTimeout(read, PAUSE)
    },
    { immediate: true },
  )

  async function read() {
    const mine = ++newest
    problem.value = ''
    if (!text.value.trim()) {
      quote.value = null
      return
    }
    const { data, error } = await api
      .POST('/api/rigs/{rig_id}/quote', {
        params: { path: { rig_id: plan.rig!.id } },
        body: {
          text: text.value,
          battery_class: batteryClass.value,
          which: which.value,
          answers: answers.value,
        },
      })
      .catch(() => ({ data: undefined, error: undefined }))
    if (mine !== newest) return
    quote.value = data ?? null
    problem.value = data
      ? (data.problems[0] ?? '')
      : ((error as Schemas['ProblemsView'] | undefined)?.problems[0]?.message ??
        phrase('compare.quote_panel.no_answer'))
  }

  const quotes = computed(() => {
    const own = new Set(plan.document.own_models.map((m) => m.id))
    return plan.document.candidates.flatMap((c, index) =>
      c.model && own.has(c.model) ? [{ id: c.id, model: c.model, index }] : [],
    )
  })
  const full = computed(() => quotes.value.length >= MOST)

  function fresh(taken: Iterable<unknown>, prefix: string): string {
    const there = new Set(taken)
    let n = 1
    while (there.has(`${prefix}-${n}`)) n++
    return `${prefix}-${n}`
  }

  function answer(field: string, value: number) {
    answers.value = { ...answers.value, [field]: value }
  }

  /** Take it in: in place of a candidate, or beside them; its strings follow the need. */
  async function take(instead: number | null) {
    const model = quote.value?.model
    if (!model || busy.value || full.value) return
    busy.value = true
    before.value = says()
    const id = fresh(
      plan.document.own_models.map((m) => m.id),
      'quote',
    )
    const value = { battery_class: model.battery_class, model: id }
    const operations: Operation[] = [{ op: 'add', path: '/own_models/-', value: { ...model, id } }]
    if (instead !== null)
      operations.push(
        { op: 'replace', path: `/candidates/${instead}/battery_class`, value: value.battery_class },
        { op: 'replace', path: `/candidates/${instead}/model`, value: id },
        ...['series', 'parallel', 'unit_price'].map((f): Operation => ({
          op: 'replace',
          path: `/candidates/${instead}/${f}`,
          value: null,
        })),
      )
    else
      operations.push({
        op: 'add',
        path: '/candidates/-',
        value: {
          ...value,
          id: fresh(
            plan.document.candidates.map((c) => c.id),
            'quote',
          ),
        },
      })
    const title = String(model.name)
    await plan.edit(phrase('compare.quote_panel.added', { title }), ...operations)
    // Of a list the next one is looked at.
    if (which.value + 1 < quote.value!.count) which.value++
    else text.value = ''
    busy.value = false
    ui.say(phrase('compare.quote_panel.placed', { title }))
  }

  return { text, batteryClass, which, quote, problem, busy, before, quotes, full, answer, take }
}
