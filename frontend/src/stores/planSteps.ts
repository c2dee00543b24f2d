import { phrase } from '@/phrases/shared'
import { api, problemsOf, type RigAnswer } from '@/api/client'
import type { RigFile } from '@/api/rigFile'
import { ref, type ComputedRef } from 'vue'
import type { useDrafts } from './drafts'
import { placed } from './rowPath'
import type { UnsentEdit } from './outbox'
import type { createShownRig, Outbox } from './shownRig'
import type { useWindow } from './useWindow'

interface Needs {
  shown: ReturnType<typeof createShownRig>
  document: ComputedRef<RigFile>
  drafts: Pick<ReturnType<typeof useDrafts>, 'drafts' | 'forget' | 'clear'>
  queue: Outbox
  here: Pick<ReturnType<typeof useWindow>, 'tell'>
  /** The field that was typed into last. */
  lastTyped: () => string
  say: (text: string) => void
}

/** Steps of the whole plan: undo, redo, and something tried beside it. */
export function createPlanSteps({
  shown,
  document,
  drafts: kept,
  queue,
  here,
  lastTyped,
  say,
}: Needs) {
  const { rig, asked, take, again } = shown
  const { drafts, forget, clear } = kept
  /** How many were taken: what lies in fields is read anew after each. */
  const steps = ref(0)

  /** Try something beside the plan, or end it by keeping or dropping what was tried. */
  function whatIf(end?: 'keep' | 'drop'): Promise<void> {
    return queue.inTurn(() => beginOrEnd(end))
  }

  async function beginOrEnd(end?: 'keep' | 'drop') {
    const view = rig.value
    if (!view) return
    const have = shown.version()
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
    const id = rig.value?.id
    if (which === 'undo' && id && queue.unanswered.value) {
      const waits = queue.takeBack(id)
      if (waits) return dropped(placed(waits.field || '/', document.value), waits)
      // What is undone with the answer goes before it.
      if (queue.entries.some((entry) => entry.rig === id)) {
        say(problemsOf(undefined)[0]!.message)
        return Promise.resolve()
      }
    }
    return queue.inTurn(() =>
      which === 'undo' && drafts[lastTyped()]?.message ? dropped(lastTyped()) : stepNow(which),
    )
  }

  /** What lies in a field is given up. */
  async function dropped(path: string | null, edit?: UnsentEdit) {
    if (path) forget(path)
    steps.value++
    const label = edit?.label ?? phrase('shared.plan.text')
    say(
      edit?.undone
        ? phrase('shared.plan.undone_when_answered', { label })
        : phrase('shared.plan.undone_before_saved', { label }),
    )
  }

  async function stepNow(which: 'undo' | 'redo') {
    const view = rig.value
    if (!view || !(which === 'undo' ? view.undo : view.redo)) return
    const have = shown.version()
    const path = which === 'undo' ? '/api/rigs/{rig_id}/undo' : '/api/rigs/{rig_id}/redo'
    const { data, error, response } = await api.POST(path, {
      params: { path: { rig_id: view.id }, query: asked() },
      body: { revision: view.revision },
    })
    if (!data) {
      say(problemsOf(error)[0]!.message)
      if (response.status === 409) await again(view.id)
      return
    }
    clear()
    here.tell(view.id, data.revision)
    await take(data as RigAnswer, have)
    steps.value++
    if (data.did)
      say(
        `${which === 'undo' ? phrase('shared.plan.undone') : phrase('shared.plan.redone')}: ${data.did}`,
      )
  }

  /** Take back an edit that was stored after its owner wanted it undone, unless something was done after it. */
  async function undoStored({ rig: id, label }: UnsentEdit) {
    const params = { path: { rig_id: id }, query: asked() }
    const open = rig.value?.id === id
    const view = open ? rig.value : (await api.GET('/api/rigs/{rig_id}', { params })).data?.whole
    if (view?.undo === label) {
      const { revision } = view
      const have = shown.version()
      const { data } = await api
        .POST('/api/rigs/{rig_id}/undo', { params, body: { revision } })
        .catch(() => ({ data: undefined }))
      if (data) {
        here.tell(id, data.revision)
        if (open) await take(data as RigAnswer, have)
        return
      }
    }
    say(phrase('shared.plan.saved_not_undone', { label }))
  }

  return { steps, whatIf, step, undoStored }
}
