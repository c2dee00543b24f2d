import { phrase } from '@/phrases/harbor'
import { api, problemsOf, type CardView, type Problem, type Schemas } from '@/api/client'
import { router } from '@/router'
import type { Made } from '@/stores/newRigs'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { freshKey } from '@/stores/useWindow'
import { ref, watch } from 'vue'

const LARGEST = 2_000_000
/** How long to wait before the list is asked for again [ms]. */
const WAIT = 3000
/** How long nothing is typed into the search before it is made [ms]. */
const PAUSE = 200

/** What a card says of a rig that is refused: why, so that it can be exported or deleted. */
const refusedFor = (error: unknown): Schemas['CardFigures'] => ({
  strip: [],
  result: [
    {
      text: phrase('harbor.use_harbor.cannot_opened', { message: problemsOf(error)[0]!.message }),
      key: null,
    },
  ],
})

export interface NewRigFields {
  name: string
  kind: string
  pattern: string
  region: string
  /** What charges it; the pattern's own where none is said. */
  sources: ('mains' | 'solar' | 'engine')[]
}

/** The rigs as cards, and what can be done with them. */
export function useHarbor() {
  const ui = useUi()
  const plan = usePlan()
  const cards = ref<CardView[] | null>(null)
  const found = ref({ found: 0, all: 0, pages: 1 })
  const search = ref('')
  const page = ref(1)
  const problems = ref<string[]>([])
  let newest = 0
  let timer = 0
  let waits = false
  const leaving = new AbortController()

  /** Nobody looks at the cards any more: they are not worked out for nobody. */
  function leave() {
    newest++
    clearTimeout(timer)
    leaving.abort()
  }

  watch(search, () => {
    clearTimeout(timer)
    page.value = 1
    timer = window.setTimeout(load, PAUSE)
  })
  function turn(to: number) {
    page.value = to
    void load()
  }

  async function load() {
    clearTimeout(timer)
    const query = { search: search.value, page: page.value }
    const { data, error, response } = await api
      .GET('/api/rigs', { params: { query } })
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    if (query.search !== search.value || query.page !== page.value) return
    if (data) {
      if (waits) problems.value = []
      waits = false
      cards.value = data.rigs
      found.value = data
      // The last card of the last page was deleted.
      if (!data.rigs.length && page.value > 1) return turn(page.value - 1)
      void workOut()
      return
    }
    // Nothing is said of rigs that were not seen: neither that there are none, nor which.
    waits = true
    problems.value = [
      response
        ? phrase('harbor.use_harbor.rigs_could_read', { message: problemsOf(error)[0]!.message })
        : phrase('harbor.use_harbor.program_answer_start_again'),
    ]
    timer = window.setTimeout(load, WAIT)
  }

  /**
   * The figures of the cards that are not known, or not of today, one after the other from the top; then what
   * helps beside the bank, which takes longer.
   */
  async function workOut() {
    const mine = ++newest
    for (const whole of [false, true]) {
      const asked = (cards.value ?? []).filter((c) => (whole ? c.figures?.looking : !c.fresh))
      for (const { id } of asked) if (!(await workOutOne(mine, id, whole))) return
    }
  }

  /** Whether it was answered, so that the next one can be asked for. */
  async function workOutOne(mine: number, id: number, whole: boolean): Promise<boolean> {
    const params = { path: { rig_id: id }, query: { whole } }
    const { data, error, response } = await api
      .GET('/api/rigs/{rig_id}/card', { params, signal: leaving.signal })
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    if (mine !== newest) return false
    if (!response) {
      timer = window.setTimeout(load, WAIT)
      return false
    }
    const figures = data ?? refusedFor(error)
    cards.value = cards.value!.map((c) => (c.id === id ? { ...c, figures } : c))
    return true
  }

  function open(id: number, stop: string) {
    router.push({ name: 'rig', params: { id, stop } })
  }

  const refused = (found: Problem[]) => {
    problems.value = found.map((p) => (p.path ? `${p.path}: ${p.message}` : p.message))
  }

  /** One rig for one wish, however often the button is pressed. */
  const making = ref(false)

  async function make(wanted: NewRigFields): Promise<void> {
    if (making.value) return
    making.value = true
    problems.value = []
    const body = JSON.stringify({ units: '', currency: '', guide: '', ...wanted })
    const said = (found: Problem[]) => (problems.value = found.map((p) => p.message))
    await plan.makeRig(
      { make: 'new', rig: 0, label: wanted.name || phrase('harbor.use_harbor.new_rig'), body },
      { made: ({ id }) => open(id, 'rig'), refused: said },
    )
    making.value = false
  }

  function copy(id: number): Promise<void> {
    const name = cards.value?.find((c) => c.id === id)?.name ?? phrase('harbor.use_harbor.rig')
    return plan.makeRig(
      { make: 'copy', rig: id, label: phrase('harbor.use_harbor.copy', { name }), body: '' },
      { made: arrived((name) => phrase('harbor.use_harbor.created', { name })), refused },
    )
  }

  function arrived(said: (name: string) => string) {
    return async ({ name }: Made) => {
      ui.say(said(name))
      await load()
    }
  }

  async function remove(id: number) {
    const path = { params: { path: { rig_id: id } } }
    const { data, error, response } = await api
      .DELETE('/api/rigs/{rig_id}', path)
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    if (!data && response?.status !== 404)
      ui.say(phrase('harbor.use_harbor.deleted', { message: problemsOf(error)[0]!.message }))
    await load()
    if (data) deleted.push(id)
    if (data)
      ui.say(phrase('harbor.use_harbor.name_deleted', { name: data.name }), {
        label: phrase('harbor.use_harbor.undo'),
        run: () => bringBack(id),
      })
  }

  /** Deleted here, the last one last. */
  const deleted: number[] = []

  async function undoDelete() {
    const id = deleted.at(-1)
    if (id !== undefined) await bringBack(id)
  }

  async function bringBack(id: number) {
    if (deleted.includes(id)) deleted.splice(deleted.indexOf(id), 1)
    const params = { path: { rig_id: id } }
    const { error } = await api
      .POST('/api/rigs/{rig_id}/restore', { params })
      .catch((error) => ({ error }))
    if (error) ui.say(problemsOf(error)[0]!.message)
    await load()
  }

  /** A rig with its log and pictures: too large to wait in the browser, so it is sent at once. */
  async function bringArchive(file: File) {
    ui.say(phrase('harbor.use_harbor.archive_sent', { name: file.name }))
    const response = await fetch(`/api/rigs/import-archive?key=${freshKey()}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: file,
    }).catch(() => null)
    const said = await response?.json().catch(() => undefined)
    if (response?.ok)
      arrived((name) => phrase('harbor.use_harbor.imported', { name }))(said as Made)
    else refused(problemsOf(said))
  }

  async function bring(file: File) {
    problems.value = []
    if (/\.zip$/i.test(file.name)) return bringArchive(file)
    if (file.size > LARGEST) {
      const size = Math.round(file.size / 1e6)
      problems.value = [phrase('harbor.use_harbor.mb_rig_file_less', { name: file.name, size })]
      return
    }
    const body = await file.text()
    await plan.makeRig(
      { make: 'file', rig: 0, label: file.name, body },
      { made: arrived((name) => phrase('harbor.use_harbor.imported', { name })), refused },
    )
  }

  async function demo() {
    const { error } = await api
      .POST('/api/rigs/demo', { body: { name: '' } })
      .catch((error) => ({ error }))
    if (error) problems.value = problemsOf(error).map((p) => p.message)
    await load()
  }

  return {
    cards,
    found,
    search,
    page,
    problems,
    making,
    leave,
    undoDelete,
    load,
    turn,
    open,
    make,
    copy,
    remove,
    bringBack,
    bring,
    demo,
  }
}
