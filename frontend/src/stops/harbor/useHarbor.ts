import { api, problemsOf, type CardView, type Schemas } from '@/api/client'
import { router } from '@/router'
import { useUi } from '@/stores/ui'
import { ref } from 'vue'

const LARGEST = 2_000_000
/** How long to wait before the list is asked for again [ms]. */
const WAIT = 3000

/** What a card says of a rig that is refused: why, so that it can be exported or deleted. */
const refusedFor = (error: unknown): Schemas['CardFigures'] => ({
  strip: [],
  result: [{ text: `It cannot be opened. ${problemsOf(error)[0]!.message}`, key: null }],
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
  const cards = ref<CardView[] | null>(null)
  const problems = ref<string[]>([])
  let newest = 0
  let timer = 0
  let waits = false

  async function load() {
    clearTimeout(timer)
    const { data, error, response } = await api
      .GET('/api/rigs')
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    if (data) {
      if (waits) problems.value = []
      waits = false
      cards.value = data.rigs
      void workOut()
      return
    }
    // Nothing is said of rigs that were not seen: neither that there are none, nor which.
    waits = true
    problems.value = [
      response
        ? `The rigs could not be read. ${problemsOf(error)[0]!.message}`
        : 'The program does not answer. Start it again: this page goes on by itself.',
    ]
    timer = window.setTimeout(load, WAIT)
  }

  /** The figures of the cards that are not known yet, one after the other from the top. */
  async function workOut() {
    const mine = ++newest
    for (const { id } of (cards.value ?? []).filter((c) => !c.figures)) {
      const path = { params: { path: { rig_id: id } } }
      const { data, error, response } = await api
        .GET('/api/rigs/{rig_id}/card', path)
        .catch(() => ({ data: undefined, error: undefined, response: undefined }))
      if (mine !== newest) return
      if (!response) {
        timer = window.setTimeout(load, WAIT)
        return
      }
      const figures = data ?? refusedFor(error)
      cards.value = cards.value!.map((c) => (c.id === id ? { ...c, figures } : c))
    }
  }

  function open(id: number, stop: string) {
    router.push({ name: 'rig', params: { id, stop } })
  }

  async function make(wanted: NewRigFields) {
    problems.value = []
    const { data, error } = await api.POST('/api/rigs', {
      body: { units: '', currency: '', ...wanted },
    })
    if (data) open(data.id, 'rig')
    else problems.value = problemsOf(error).map((p) => p.message)
  }

  async function copy(id: number) {
    const { data } = await api.POST('/api/rigs/{rig_id}/copy', { params: { path: { rig_id: id } } })
    if (data) ui.say(`${data.name} made.`)
    await load()
  }

  async function remove(id: number) {
    const path = { params: { path: { rig_id: id } } }
    const { data } = await api.DELETE('/api/rigs/{rig_id}', path)
    await load()
    if (!data) return
    ui.say(`${data.name} deleted.`, {
      label: 'Undo',
      run: async () => {
        await api.POST('/api/rigs/{rig_id}/restore', path)
        await load()
      },
    })
  }

  async function bring(file: File) {
    problems.value = []
    if (file.size > LARGEST) {
      const size = Math.round(file.size / 1e6)
      problems.value = [
        `${file.name} has ${size} MB; a rig file has less than 2 MB, so this is something else.`,
      ]
      return
    }
    const response = await fetch('/api/rigs/import', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: file,
    }).catch(() => null)
    const body = await response?.json().catch(() => null)
    if (response?.ok) {
      ui.say(`${body.name} imported.`)
      await load()
    } else {
      problems.value = problemsOf(body).map((p) => (p.path ? `${p.path}: ${p.message}` : p.message))
    }
  }

  async function demo() {
    await api.POST('/api/rigs/demo', { body: { name: '' } })
    await load()
  }

  return { cards, problems, load, open, make, copy, remove, bring, demo }
}
