import { phrase } from '@/phrases/shared'
import {
  api,
  problemsOf,
  type Interpretation,
  type Operation,
  type Problem,
  type RigAnswer,
  type RigView,
} from '@/api/client'
import { keepLast } from '@/api/offline'
import type { RigFile } from '@/api/rigFile'
import type { Stop } from '@/api/lists'
import { immutableJSONPatch, type JSONPatchOperation } from 'immutable-json-patch'
import { defineStore } from 'pinia'
import { numbers } from '@/ui/numbers'
import { computed, ref, shallowRef, toRaw, watch } from 'vue'
import { useDrafts } from './drafts'
import { useNewRigs, type Asker } from './newRigs'
import {
  createOutbox,
  isEdit,
  isRig,
  type Outcome,
  type Unsent,
  type UnsentEdit,
  type UnsentRig,
} from './outbox'
import { named, namedAll, placed, placedAll, meantRows } from './rowPath'
import { takePatch, takeWhole } from './takeView'
import { useUi } from './ui'
import { freshKey, useWindow } from './useWindow'

/** How long a wrong value may stand before it is spoken of [ms]. */
const PAUSE = 600
/** How long nothing is edited before what takes long is run anew [ms]. */
const PAUSE_BEFORE_RUN = 350
/** A document with a choice made in it, where it only sets values that are there, or kept by name. */
function chosen(document: RigFile, edit: UnsentEdit): RigFile {
  const operations = placedAll(edit.operations, document)
  if (!operations?.every((o) => o.op === 'replace' || BY_NAME.test(o.path))) return document
  try {
    return immutableJSONPatch(document, operations as JSONPatchOperation[]) as RigFile
  } catch {
    return document
  }
}

/** How often an edit is made anew against a rig that changed meanwhile. */
const MOST_TRIES = 3

/** Values that are kept by name: one that was not there is added. */
const BY_NAME =
  /^\/plan\/overrides\/|^\/changeover\/(done|notes|passed|readings)\/|\/purchases\/(quoted|paid|bought_on|seller|serial)\//

/**
 * The rig that is open. Edits go to the server one after the other; its answer, what differs with every figure
 * computed anew, goes into what is shown. What was typed and refused is kept as a draft at its field, over
 * reloads too.
 */
export const usePlan = defineStore('plan', () => {
  const ui = useUi()
  const rig = shallowRef<RigView | null>(null)
  const missing = ref(false)
  /** Why the rig cannot be opened; empty where it is not there. */
  const why = ref('')
  const steps = ref(0)
  /** Why the program does not store, where it says so; empty where it says nothing. */
  const troubled = ref('')
  /** Why the last edit that was not typed was refused. */
  const refused = shallowRef<Problem | null>(null)
  /** Kind of day that is shown; the governing one while it is empty. */
  const show = ref('')
  /** The stop that is open, or that is asked for. */
  let stop: Stop = 'rig'
  /** Version of the view in `rig`: the server tells what differs from it. */
  let version = ''
  let catchingUp = 0
  /** The field that was typed into last. */
  let lastTyped = ''
  /** Fields typed into, each with its place in the order of typing. */
  const typed = new Map<string, number>()
  /** Something is being filled in for the owner: nobody goes on before it has come. */
  const filling = ref(0)

  const newRigs = useNewRigs((text) => ui.say(text))

  /** The rig as it is stored, with the choices that wait to be. */
  const document = computed(() => {
    const stored = rig.value?.document as RigFile
    if (!stored || !queue.unanswered.value) return stored
    return queue.entries
      .filter((e): e is UnsentEdit => isEdit(e) && e.rig === rig.value!.id && !e.field)
      .reduce(chosen, stored)
  })

  watch(
    () => document.value?.rig.numbers,
    (of) => (numbers.value = (of as string | undefined) ?? ''),
    { immediate: true, flush: 'sync' },
  )

  const { drafts, put, forget, load, clear, rebase } = useDrafts(
    () => `vast-harbor-drafts-${rig.value?.id}`,
  )
  const showKey = () => `vast-harbor-show-${rig.value?.id}`
  const asked = () => ({ show: show.value, stop, have: version })

  const here = useWindow({
    changed: (id, revision) => {
      if (rig.value?.id === id && revision > rig.value.revision) void refresh()
    },
    seen: () => void refresh(),
    orphaned: (tab) => void queue.adopt(tab),
  })

  const queue = createOutbox({
    deliver,
    idle: () => {
      clearTimeout(catchingUp)
      if (unfinished()) catchingUp = window.setTimeout(catchUp, PAUSE_BEFORE_RUN)
    },
    failed: () => ui.say(phrase('shared.plan.change_did_arrive_please')),
    storage: localStorage,
    tab: () => here.tab,
  })
  void queue.adopt(here.tab)
  here.watch(() => queue.left())
  addEventListener('beforeunload', (event) => {
    if (queue.count.value) event.preventDefault()
  })

  /** Show an answer; one that tells what differs from a view that is no longer shown is asked for whole. */
  async function take(answer: RigAnswer, have: string) {
    if (answer.patch && have !== version) {
      // Another rig is being opened, and asks for itself.
      if (!rig.value) return
      version = ''
      const { data } = await ask(rig.value.id)
      if (data) await take(data as RigAnswer, '')
      return
    }
    version = answer.version
    const before = rig.value?.id === answer.whole?.id || answer.patch ? toRaw(document.value) : null
    // Only the parts of the stop that is open are there, and only its screen is shown.
    if (answer.whole) rig.value = takeWhole(rig.value, answer.whole as RigView)
    else if (rig.value && answer.patch) takePatch(rig.value, answer.patch as JSONPatchOperation[])
    if (rig.value) {
      const { id, stop, revision } = rig.value
      keepLast(id, stop || 'rig', () => ({
        version: '',
        revision,
        did: '',
        whole: toRaw(rig.value),
      }))
    }
    if (before && before !== toRaw(document.value)) {
      rebase((path) => placed(named(path, before), document.value))
    }
  }

  async function ask(id: number) {
    return await api.GET('/api/rigs/{rig_id}', {
      params: { path: { rig_id: id }, query: asked() },
    })
  }

  /** Whether something of the answer is still that of before the last edit. */
  const unfinished = () => Boolean(rig.value?.stale || rig.value?.searching)

  /** After an edit trial, year and what was found are those of before: fetch the new ones at rest. */
  async function catchUp() {
    const view = rig.value
    const have = version
    if (!view || !unfinished() || queue.busy()) return
    const { data } = await ask(view.id).catch(() => ({ data: undefined }))
    // An edit that is on its way is answered by what differs from the view that is shown now.
    if (data && version === have && !queue.busy()) await take(data as RigAnswer, have)
  }

  async function open(id: number) {
    missing.value = false
    if (rig.value?.id !== id) {
      rig.value = null
      version = ''
      show.value = sessionStorage.getItem(`vast-harbor-show-${id}`) ?? ''
    }
    const have = version
    const { data, error, response } = await ask(id).catch(() => ({
      data: undefined,
      error: undefined,
      response: undefined,
    }))
    if (!data) {
      missing.value = true
      why.value = response?.status === 404 ? '' : problemsOf(error)[0]!.message
      return
    }
    await take(data as RigAnswer, have)
    load()
  }

  /** Show what another window, or another device, made of the rig meanwhile. */
  async function refresh() {
    const view = rig.value
    const have = version
    if (!view || queue.busy() || queue.unanswered.value) return
    const { data } = await ask(view.id).catch(() => ({ data: undefined }))
    if (data && version === have && !queue.busy()) await take(data as RigAnswer, have)
  }

  /** Fetch the parts of a stop; those of the one before stay until they are there. */
  async function toStop(next: Stop): Promise<void> {
    stop = next
    if (!rig.value || rig.value.stop === next) return
    await queue.inTurn(async () => {
      if (!rig.value || rig.value.stop === stop) return
      const have = version
      const { data } = await ask(rig.value.id)
      if (data) await take(data as RigAnswer, have)
    })
  }

  /** Send an edit, again where the rig changed meanwhile: its rows are meant, not their places. */
  async function deliver(edit: Unsent): Promise<Outcome> {
    if (isRig(edit)) return await newRigs.deliver(edit)
    for (let tried = 0; tried < MOST_TRIES; tried++) {
      const outcome = await send(edit)
      if (outcome !== 'changed elsewhere') return outcome
    }
    ui.say(phrase('shared.plan.saved_because_rig_being', { label: edit.label }))
    return 'settled'
  }

  /** What an edit is made against: the view that is shown, or that of a rig that is not open. */
  async function against(edit: UnsentEdit): Promise<RigView | Outcome> {
    if (rig.value?.id === edit.rig) return rig.value
    const { data, response } = await api
      .GET('/api/rigs/{rig_id}', {
        params: { path: { rig_id: edit.rig }, query: { stop: 'rig', show: '', have: '' } },
      })
      .catch(() => ({ data: undefined, response: undefined }))
    if (data?.whole) return data.whole as RigView
    if (!response || response.status >= 500) return 'unanswered'
    ui.say(phrase('shared.plan.saved_because_rig_longer', { label: edit.label }))
    return 'settled'
  }

  async function send(edit: UnsentEdit): Promise<Outcome | 'changed elsewhere'> {
    const view = await against(edit)
    if (typeof view === 'string') return view
    const operations = placedAll(edit.operations, toRaw(view.document))
    if (!operations) return gone(edit)
    const have = version
    const { data, error, response } = await api
      .PATCH('/api/rigs/{rig_id}', {
        params: { path: { rig_id: edit.rig } },
        body: {
          revision: view.revision,
          ...asked(),
          operations: [...meantRows(edit.operations, toRaw(view.document)), ...operations],
          label: edit.label,
          field: edit.field,
          tab: here.tab,
          key: edit.key,
        },
      })
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    const open = rig.value?.id === edit.rig
    if (data) {
      here.tell(edit.rig, data.revision)
      if (open || !rig.value) await take(data as RigAnswer, have)
      refused.value = null
      const path = open && edit.field && placed(edit.field, document.value)
      if (path && drafts[path]?.text === edit.operations[0]?.value) forget(path)
      return 'settled'
    }
    if (!response || response.status >= 500) {
      troubled.value = response ? problemsOf(error)[0]!.message : ''
      if (open) unanswered(edit, problemsOf(error)[0]!)
      return 'unanswered'
    }
    if (response.status === 409) {
      ui.say(problemsOf(error)[0]!.message)
      if (open && !(await again(edit.rig))) return 'unanswered'
      return 'changed elsewhere'
    }
    if (open) refuse(edit, operations, problemsOf(error))
    else
      ui.say(
        phrase('shared.plan.saved', { label: edit.label, message: problemsOf(error)[0]!.message }),
      )
    return 'settled'
  }

  /** Fetch the whole rig as it is now; what is typed and not stored goes along with its rows. */
  async function again(id: number): Promise<boolean> {
    version = ''
    const { data } = await ask(id).catch(() => ({ data: undefined }))
    if (data) await take(data as RigAnswer, '')
    return Boolean(data)
  }

  /** The row that an edit means was removed meanwhile. */
  function gone(edit: UnsentEdit): Outcome {
    const text = edit.field ? String(edit.operations[0]?.value ?? '') : ''
    const kept = text ? phrase('shared.plan.text_kept', { text }) : ''
    ui.say(phrase('shared.plan.saved_because_row_removed', { label: edit.label, kept }))
    return 'settled'
  }

  /** Nobody answers: the field says so when the hand rests, until it is stored. */
  function unanswered(edit: UnsentEdit, problem: Problem) {
    const path = edit.field && placed(edit.field, document.value)
    if (!path) return
    const text = String(edit.operations[0]?.value ?? '')
    setTimeout(() => {
      if (drafts[path]?.text === text) put(path, { text, message: problem.message })
    }, PAUSE)
  }

  function refuse(edit: UnsentEdit, operations: Operation[], problems: Problem[]) {
    const first = problems[0]!
    if (!edit.field) {
      refused.value = first
      // What a choice was refused for stands under it.
      if (!operations.some((o) => o.path === first.path)) ui.say(first.message)
      return
    }
    const text = String(edit.operations[0]?.value ?? '')
    // People pass through wrong values on the way to right ones: speak up when they pause.
    setTimeout(() => {
      const path = placed(edit.field, document.value)
      if (!path || drafts[path]?.text !== text) return
      put(path, { text, message: first.message, interpretations: first.interpretations })
    }, PAUSE)
  }

  function push(label: string, field: string, operations: Operation[]): Promise<void> {
    const view = rig.value
    if (!view) return Promise.resolve()
    const doc = toRaw(document.value)
    return queue.push({
      operations: namedAll(operations, doc),
      label,
      field: field && named(field, doc),
      key: freshKey(),
      rig: view.id,
    })
  }

  /** Make a rig; where nobody answers it waits with the edits, in their order. */
  function makeRig(wanted: Omit<UnsentRig, 'key'>, asker: Asker): Promise<void> {
    const key = freshKey()
    newRigs.expect(key, asker)
    return queue.push({ ...wanted, key })
  }

  /** Carry out an edit that is not typed: a step, a choice, a row added. */
  function edit(label: string, ...operations: Operation[]): Promise<void> {
    return push(label, '', operations)
  }

  /** Carry out an edit by hand that goes on, such as a drag: a newer one takes the place of one that waits. */
  function set(label: string, field: string, operations: Operation[]): Promise<void> {
    return push(label, field, operations)
  }

  /** Take what is being typed into one field. */
  function type(path: string, text: string, label: string): Promise<void> {
    put(path, { text, message: drafts[path]?.message ?? '' })
    lastTyped = path
    typed.set(path, typed.size ? Math.max(...typed.values()) + 1 : 1)
    const op = BY_NAME.test(path) ? 'add' : 'replace'
    return push(label, path, [{ op, path, value: text }])
  }

  /**
   * Fill in what is fetched for the owner, but for what is typed meanwhile: what was typed last wins.
   *
   * @param fetch brings the edit; undefined where nobody answers.
   * @param kept operations that go with a typed field and are left out with it.
   */
  async function fill(
    fetch: () => Promise<{ label: string; operations: Operation[] } | undefined>,
    kept: (path: string) => string[],
  ): Promise<boolean> {
    filling.value++
    try {
      await queue.settled()
      const before = Math.max(0, ...typed.values())
      const found = await fetch()
      if (!found) return false
      const mine = [...typed]
        .filter(([, at]) => at > before)
        .flatMap(([path]) => [path, ...kept(path)])
      await edit(found.label, ...found.operations.filter((o) => !mine.includes(o.path)))
      return true
    } finally {
      filling.value--
    }
  }

  /** Enter what was meant by a refused value, as one edit. */
  function mean(path: string, meant: Interpretation): Promise<void> {
    forget(path)
    return edit(phrase('shared.plan.read', { label: meant.label }), ...meant.operations)
  }

  /** Show another kind of day. */
  async function showDay(id: string) {
    await queue.settled()
    show.value = id
    sessionStorage.setItem(showKey(), id)
    if (rig.value) await open(rig.value.id)
  }

  /** Try something beside the plan, or end it by keeping or dropping what was tried. */
  function whatIf(end?: 'keep' | 'drop'): Promise<void> {
    return queue.inTurn(() => beginOrEnd(end))
  }

  async function beginOrEnd(end?: 'keep' | 'drop') {
    const view = rig.value
    if (!view) return
    const have = version
    const params = { path: { rig_id: view.id }, query: asked() }
    const { data } = end
      ? await api.POST('/api/rigs/{rig_id}/what-if/end', { params, body: { keep: end === 'keep' } })
      : await api.POST('/api/rigs/{rig_id}/what-if', { params })
    if (!data) return
    if (end === 'drop') {
      clear()
      steps.value++
    }
    await take(data as RigAnswer, have)
  }

  /** Undo first takes back what was typed last and is not stored. */
  function step(which: 'undo' | 'redo'): Promise<void> {
    const view = rig.value
    if (which === 'undo' && view) {
      const waits = queue.unanswered.value ? queue.takeBack(view.id) : undefined
      const path = waits ? placed(waits.field || '/', document.value) : lastTyped
      if (waits || drafts[path ?? '']?.message) {
        if (path) forget(path)
        steps.value++
        ui.say(
          phrase('shared.plan.undone_before_saved', {
            label: waits?.label ?? phrase('shared.plan.text'),
          }),
        )
        return Promise.resolve()
      }
    }
    return queue.inTurn(() => stepNow(which))
  }

  async function stepNow(which: 'undo' | 'redo') {
    const view = rig.value
    if (!view || !(which === 'undo' ? view.undo : view.redo)) return
    const have = version
    const path = which === 'undo' ? '/api/rigs/{rig_id}/undo' : '/api/rigs/{rig_id}/redo'
    const { data, error, response } = await api.POST(path, {
      params: { path: { rig_id: view.id }, query: asked() },
      body: { revision: view.revision },
    })
    if (!data) {
      ui.say(problemsOf(error)[0]!.message)
      if (response.status === 409) await again(view.id)
      return
    }
    clear()
    here.tell(view.id, data.revision)
    await take(data as RigAnswer, have)
    steps.value++
    if (data.did)
      ui.say(
        `${which === 'undo' ? phrase('shared.plan.undone') : phrase('shared.plan.redone')}: ${data.did}`,
      )
  }

  return {
    rig,
    document,
    missing,
    why,
    drafts,
    refused,
    steps,
    troubled,
    show,
    open,
    toStop,
    refresh,
    edit,
    set,
    settled: queue.settled,
    /** Edits that are not stored because nobody answers. */
    unsent: computed(() => (queue.unanswered.value ? queue.count.value : 0)),
    sendAgain: queue.again,
    makeRig,
    /** Rigs that are not made because nobody answers. */
    unmade: computed(() => (queue.unanswered.value ? queue.entries.filter(isRig) : [])),
    whyUnmade: newRigs.why,
    dropUnmade: queue.drop,
    type,
    fill,
    filling,
    forget,
    mean,
    showDay,
    whatIf,
    step,
  }
})
