import {
  api,
  problemsOf,
  type Operation,
  type Problem,
  type Interpretation,
  type RigView,
} from '@/api/client'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { share } from './share'
import { useUi } from './ui'

interface Edit {
  operations: Operation[]
  label: string
  field: string
}

export interface Draft {
  text: string
  message: string
  /** What may have been meant instead. */
  interpretations?: Interpretation[]
}

/** How long a wrong value may stand before it is spoken of [ms]. */
const PAUSE = 600
/** How long nothing is edited before what takes long is run anew [ms]. */
const PAUSE_BEFORE_RUN = 350

export interface DayType {
  id: string
  name: string
  kind: string
  season: string
  [field: string]: unknown
}

/** Where a battery stands in the locker [mm]. */
export interface Place {
  compartment: number
  x: number
  y: number
  pose: string
  turned: boolean
}

type Value = string | number | boolean | null

/** A source of charge; which fields count depends on its kind. */
export interface Source {
  id: string
  kind: string
  name: string
  monthly_w: number[]
  [field: string]: unknown
}

type Document = {
  rig: Record<string, Value> & { months: number[]; cares: string[]; sun_hours: number[] }
  old_bank: Record<string, Value> | null
  second_bank: Record<string, Value> | null
  day: {
    types: DayType[]
    loads: Record<string, unknown>[]
    inverter: Record<string, number | null>
    standby_w: number
  }
  plan: {
    house_rule: string
    life_basis: string | null
    overrides: Record<string, number>
    day_type: string | null
    day_basis: string
    habits: string
    overnight: boolean
    labour: string
  }
  own_models: Record<string, Value>[]
  sources: Source[]
  trial: {
    stretch: string
    days: number | null
    month: number | null
    seed: number
    nights: number | null
    pitches: string[]
    hidden_w: number
    start_soc: number
  }
  candidates: {
    id: string
    battery_class: string
    model: string | null
    series: number | null
    parallel: number | null
    unit_price: number | null
    price_date: string
    protection: string
    places: Place[]
    stages: { id: string; when: string; strings: number; other: string; other_price: number }[]
    extras: {
      id: string
      name: string
      price: number
      tag: string
      covers: string
      life_years: number | null
    }[]
    struck: string[]
    difficulty: string | null
    spare: boolean
    fixes: { source: string; remedy: string }[]
  }[]
}

/**
 * The rig that is open. Edits go to the server one after the other; its answer, with every figure
 * computed anew, replaces what is shown. What was typed and refused is kept as a draft at its field,
 * over reloads too.
 */
export const usePlan = defineStore('plan', () => {
  const ui = useUi()
  const rig = shallowRef<RigView | null>(null)
  const missing = ref(false)
  const drafts = ref<Record<string, Draft>>({})
  const steps = ref(0)
  /** Why the last edit that was not typed was refused. */
  const refused = shallowRef<Problem | null>(null)
  /** Kind of day that is shown; the governing one while it is empty. */
  const show = ref('')
  const queue: Edit[] = []
  /** Everything that changes the rig goes one after the other. */
  let turn: Promise<void> = Promise.resolve()
  let taken = 0
  let waiting = 0
  let catchingUp = 0

  const document = computed(() => rig.value?.document as unknown as Document)

  const showKey = () => `vast-harbor-show-${rig.value?.id}`
  const draftKey = () => `vast-harbor-drafts-${rig.value?.id}`

  function keepDrafts() {
    sessionStorage.setItem(draftKey(), JSON.stringify(drafts.value))
  }

  function take(view: RigView) {
    taken++
    rig.value = share(rig.value, view)
  }

  /** After an edit trial and year are those of before: fetch the new ones once the hand rests. */
  async function catchUp() {
    const view = rig.value
    const before = taken
    if (!view?.stale || waiting) return
    const { data } = await api
      .GET('/api/rigs/{rig_id}', {
        params: { path: { rig_id: view.id }, query: { show: show.value } },
      })
      .catch(() => ({ data: undefined }))
    if (data && taken === before) take(data as RigView)
  }

  async function open(id: number) {
    missing.value = false
    if (rig.value?.id !== id) {
      rig.value = null
      show.value = sessionStorage.getItem(`vast-harbor-show-${id}`) ?? ''
    }
    const { data, response } = await api.GET('/api/rigs/{rig_id}', {
      params: { path: { rig_id: id }, query: { show: show.value } },
    })
    if (!data) {
      missing.value = true
      if (response.status !== 404) ui.say('The rig could not be read.')
      return
    }
    take(data as RigView)
    drafts.value = JSON.parse(sessionStorage.getItem(draftKey()) ?? '{}')
    // What was typed just before a reload may not have arrived: send it again.
    for (const [path, draft] of Object.entries(drafts.value)) {
      type(path, draft.text, path.split('/').at(-1) ?? 'edit')
    }
  }

  async function send(edit: Edit) {
    const view = rig.value
    if (!view) return
    const sent = edit.field ? (edit.operations[0]?.value as string) : null
    const { data, error, response } = await api
      .PATCH('/api/rigs/{rig_id}', {
        params: { path: { rig_id: view.id } },
        body: { revision: view.revision, show: show.value, ...edit },
      })
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    if (data) {
      take(data as RigView)
      refused.value = null
      if (edit.field && drafts.value[edit.field]?.text === sent) forget(edit.field)
    } else if (response?.status === 409) {
      ui.say(problemsOf(error)[0]!.message)
      await open(view.id)
    } else {
      refuse(edit, problemsOf(error))
    }
  }

  function refuse(edit: Edit, problems: Problem[]) {
    const first = problems[0]!
    if (!edit.field) {
      refused.value = first
      // What a choice was refused for stands under it.
      if (!edit.operations.some((o) => o.path === first.path)) ui.say(first.message)
      return
    }
    const path = edit.field
    const text = String(edit.operations[0]?.value ?? '')
    // People pass through wrong values on the way to right ones: speak up when they pause.
    setTimeout(() => {
      if (drafts.value[path]?.text !== text) return
      drafts.value = {
        ...drafts.value,
        [path]: { text, message: first.message, interpretations: first.interpretations },
      }
      keepDrafts()
    }, PAUSE)
  }

  function inTurn(work: () => Promise<void>): Promise<void> {
    clearTimeout(catchingUp)
    waiting++
    turn = turn
      .then(work)
      .catch(() => ui.say('That did not arrive. Please try again.'))
      .finally(() => {
        waiting--
        if (!waiting && rig.value?.stale) catchingUp = window.setTimeout(catchUp, PAUSE_BEFORE_RUN)
      })
    return turn
  }

  async function sendNext() {
    const next = queue.shift()
    if (next) await send(next)
  }

  function push(edit: Edit): Promise<void> {
    const last = queue.at(-1)
    if (edit.field && last?.field === edit.field) queue[queue.length - 1] = edit
    else queue.push(edit)
    return inTurn(sendNext)
  }

  /** Carry out an edit that is not typed: a step, a choice, a row added. */
  function edit(label: string, ...operations: Operation[]): Promise<void> {
    for (const o of operations) if (o.op === 'remove') renumber(o.path)
    return push({ operations, label, field: '' })
  }

  /** Carry out an edit by hand that goes on, such as a drag: a newer one takes the place of one that waits. */
  function set(label: string, field: string, operations: Operation[]): Promise<void> {
    return push({ operations, label, field })
  }

  /** When all edits so far have been answered. */
  async function settled(): Promise<void> {
    await turn
  }

  /** Take what is being typed into one field. */
  function type(path: string, text: string, label: string): Promise<void> {
    const message = drafts.value[path]?.message ?? ''
    drafts.value = { ...drafts.value, [path]: { text, message } }
    keepDrafts()
    const op = path.startsWith('/plan/overrides/') ? 'add' : 'replace'
    return push({ operations: [{ op, path, value: text }], label, field: path })
  }

  /** Drafts stay with their rows when one above them is removed. */
  function renumber(removed: string) {
    const [, list, index] = /^(.*)\/(\d+)$/.exec(removed) ?? []
    if (!list) return
    const kept = Object.entries(drafts.value).flatMap(([path, draft]) => {
      const [, at, rest] = path.startsWith(`${list}/`)
        ? (/^(\d+)(.*)$/.exec(path.slice(list.length + 1)) ?? [])
        : []
      if (at === undefined || Number(at) < Number(index)) return [[path, draft] as const]
      return Number(at) === Number(index)
        ? []
        : [[`${list}/${Number(at) - 1}${rest}`, draft] as const]
    })
    drafts.value = Object.fromEntries(kept)
    keepDrafts()
  }

  /** Give up what was typed and refused; the stored value stands. */
  function forget(path: string) {
    const rest = { ...drafts.value }
    delete rest[path]
    drafts.value = rest
    keepDrafts()
  }

  /** Enter what was meant by a refused value, as one edit. */
  function mean(path: string, interpretation: Interpretation): Promise<void> {
    forget(path)
    return edit(
      `read as ${interpretation.label}`,
      ...(interpretation.operations as unknown as Operation[]),
    )
  }

  /** Show another kind of day. */
  async function showDay(id: string) {
    await turn
    show.value = id
    sessionStorage.setItem(showKey(), id)
    if (rig.value) await open(rig.value.id)
  }

  /** Try something beside the plan, or end it by keeping or dropping what was tried. */
  function whatIf(end?: 'keep' | 'drop'): Promise<void> {
    return inTurn(() => beginOrEnd(end))
  }

  async function beginOrEnd(end?: 'keep' | 'drop') {
    const view = rig.value
    if (!view) return
    const params = { path: { rig_id: view.id }, query: { show: show.value } }
    const { data } = end
      ? await api.POST('/api/rigs/{rig_id}/what-if/end', { params, body: { keep: end === 'keep' } })
      : await api.POST('/api/rigs/{rig_id}/what-if', { params })
    if (!data) return
    if (end === 'drop') {
      drafts.value = {}
      keepDrafts()
      steps.value++
    }
    take(data as RigView)
  }

  function step(which: 'undo' | 'redo'): Promise<void> {
    return inTurn(() => stepNow(which))
  }

  async function stepNow(which: 'undo' | 'redo') {
    const view = rig.value
    const label = which === 'undo' ? view?.undo : view?.redo
    if (!view || !label) return
    const path = which === 'undo' ? '/api/rigs/{rig_id}/undo' : '/api/rigs/{rig_id}/redo'
    const { data } = await api.POST(path, {
      params: { path: { rig_id: view.id }, query: { show: show.value } },
    })
    if (!data) return
    drafts.value = {}
    keepDrafts()
    take(data as RigView)
    steps.value++
    ui.say(`${which === 'undo' ? 'Undone' : 'Done again'}: ${label}`)
  }

  return {
    rig,
    document,
    missing,
    drafts,
    refused,
    steps,
    show,
    open,
    edit,
    set,
    settled,
    type,
    forget,
    mean,
    showDay,
    whatIf,
    step,
  }
})
