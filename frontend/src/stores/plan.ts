import {
  api,
  problemsOf,
  type Interpretation,
  type Operation,
  type Problem,
  type RigAnswer,
  type RigView,
} from '@/api/client'
import type { RigFile } from '@/api/rigFile'
import type { Stop } from '@/router'
import type { JSONPatchOperation } from 'immutable-json-patch'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useDrafts } from './drafts'
import { createEditQueue, type Edit } from './editQueue'
import { takePatch, takeWhole } from './takeView'
import { useUi } from './ui'

/** How long a wrong value may stand before it is spoken of [ms]. */
const PAUSE = 600
/** How long nothing is edited before what takes long is run anew [ms]. */
const PAUSE_BEFORE_RUN = 350

/**
 * The rig that is open. Edits go to the server one after the other; its answer, what differs with every figure
 * computed anew, goes into what is shown. What was typed and refused is kept as a draft at its field, over
 * reloads too.
 */
export const usePlan = defineStore('plan', () => {
  const ui = useUi()
  const rig = shallowRef<RigView | null>(null)
  const missing = ref(false)
  const steps = ref(0)
  /** Why the last edit that was not typed was refused. */
  const refused = shallowRef<Problem | null>(null)
  /** Kind of day that is shown; the governing one while it is empty. */
  const show = ref('')
  /** The stop that is open, or that is asked for. */
  let stop: Stop = 'rig'
  /** Version of the view in `rig`: the server tells what differs from it. */
  let version = ''
  let catchingUp = 0

  const document = computed(() => rig.value?.document as RigFile)

  const { drafts, put, forget, load, clear, renumber } = useDrafts(
    () => `vast-harbor-drafts-${rig.value?.id}`,
  )
  const showKey = () => `vast-harbor-show-${rig.value?.id}`
  const asked = () => ({ show: show.value, stop, have: version })

  const queue = createEditQueue({
    send,
    idle: () => {
      clearTimeout(catchingUp)
      if (unfinished()) catchingUp = window.setTimeout(catchUp, PAUSE_BEFORE_RUN)
    },
    failed: () => ui.say('That did not arrive. Please try again.'),
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
    // Only the parts of the stop that is open are there, and only its screen is shown.
    if (answer.whole) rig.value = takeWhole(rig.value, answer.whole as RigView)
    else if (rig.value && answer.patch) takePatch(rig.value, answer.patch as JSONPatchOperation[])
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
    const { data, response } = await ask(id)
    if (!data) {
      missing.value = true
      if (response.status !== 404) ui.say('The rig could not be read.')
      return
    }
    await take(data as RigAnswer, have)
    load()
    // What was typed just before a reload may not have arrived: send it again.
    for (const [path, draft] of Object.entries({ ...drafts })) {
      type(path, draft.text, path.split('/').at(-1) ?? 'edit')
    }
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

  async function send(edit: Edit) {
    const view = rig.value
    if (!view) return
    const sent = edit.field ? edit.operations[0]?.value : null
    const have = version
    const { data, error, response } = await api
      .PATCH('/api/rigs/{rig_id}', {
        params: { path: { rig_id: view.id } },
        body: { revision: view.revision, ...asked(), ...edit },
      })
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    if (data) {
      await take(data as RigAnswer, have)
      refused.value = null
      if (edit.field && drafts[edit.field]?.text === sent) forget(edit.field)
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
      if (drafts[path]?.text !== text) return
      put(path, { text, message: first.message, interpretations: first.interpretations })
    }, PAUSE)
  }

  /** Carry out an edit that is not typed: a step, a choice, a row added. */
  function edit(label: string, ...operations: Operation[]): Promise<void> {
    for (const o of operations) if (o.op === 'remove') renumber(o.path)
    return queue.push({ operations, label, field: '' })
  }

  /** Carry out an edit by hand that goes on, such as a drag: a newer one takes the place of one that waits. */
  function set(label: string, field: string, operations: Operation[]): Promise<void> {
    return queue.push({ operations, label, field })
  }

  /** Take what is being typed into one field. */
  function type(path: string, text: string, label: string): Promise<void> {
    put(path, { text, message: drafts[path]?.message ?? '' })
    const op = path.startsWith('/plan/overrides/') ? 'add' : 'replace'
    return queue.push({ operations: [{ op, path, value: text }], label, field: path })
  }

  /** Enter what was meant by a refused value, as one edit. */
  function mean(path: string, meant: Interpretation): Promise<void> {
    forget(path)
    return edit(`read as ${meant.label}`, ...meant.operations)
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

  function step(which: 'undo' | 'redo'): Promise<void> {
    return queue.inTurn(() => stepNow(which))
  }

  async function stepNow(which: 'undo' | 'redo') {
    const view = rig.value
    const label = which === 'undo' ? view?.undo : view?.redo
    if (!view || !label) return
    const have = version
    const path = which === 'undo' ? '/api/rigs/{rig_id}/undo' : '/api/rigs/{rig_id}/redo'
    const { data } = await api.POST(path, {
      params: { path: { rig_id: view.id }, query: asked() },
    })
    if (!data) return
    clear()
    await take(data as RigAnswer, have)
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
    toStop,
    edit,
    set,
    settled: queue.settled,
    type,
    forget,
    mean,
    showDay,
    whatIf,
    step,
  }
})
