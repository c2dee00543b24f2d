import { phrase } from '@/phrases/shared'
import {
  api,
  problemsOf,
  type Operation,
  type Problem,
  type RigAnswer,
  type RigView,
} from '@/api/client'
import type { RigFile } from '@/api/rigFile'
import { ref, shallowRef, toRaw, type ComputedRef } from 'vue'
import type { useDrafts } from './drafts'
import type { useNewRigs } from './newRigs'
import { isRig, type Outcome, type Unsent, type UnsentEdit } from './outbox'
import { meantRows, placed, placedAll } from './rowPath'
import type { createShownRig } from './shownRig'
import type { useWindow } from './useWindow'

/** How long a wrong value may stand before it is spoken of [ms]. */
const PAUSE = 600
/** How often an edit is made anew against a rig that changed meanwhile. */
const MOST_TRIES = 3

interface Needs {
  shown: ReturnType<typeof createShownRig>
  document: ComputedRef<RigFile>
  drafts: Pick<ReturnType<typeof useDrafts>, 'drafts' | 'put' | 'forget'>
  newRigs: ReturnType<typeof useNewRigs>
  here: () => Pick<ReturnType<typeof useWindow>, 'tab' | 'tell'>
  say: (text: string) => void
}

/** One edit on its way to the server, and what becomes of it. */
export function createSending({ shown, document, drafts: kept, newRigs, here, say }: Needs) {
  const { rig } = shown
  const { drafts, put, forget } = kept
  /** Why the program does not store, where it says so; empty where it says nothing. */
  const troubled = ref('')
  /** Why the last edit that was not typed was refused. */
  const refused = shallowRef<Problem | null>(null)

  /** Send an edit, again where the rig changed meanwhile: its rows are meant, not their places. */
  async function deliver(edit: Unsent): Promise<Outcome> {
    if (isRig(edit)) return await newRigs.deliver(edit)
    for (let tried = 0; tried < MOST_TRIES; tried++) {
      const outcome = await send(edit)
      if (outcome !== 'changed elsewhere') return outcome
    }
    say(phrase('shared.plan.saved_because_rig_being', { label: edit.label }))
    return 'refused'
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
    return gone(edit, 'rig_longer')
  }

  async function send(edit: UnsentEdit): Promise<Outcome | 'changed elsewhere'> {
    const view = await against(edit)
    if (typeof view === 'string') return view
    const operations = placedAll(edit.operations, toRaw(view.document))
    if (!operations) return gone(edit, 'row_removed')
    const have = shown.version()
    const { data, error, response } = await api
      .PATCH('/api/rigs/{rig_id}', {
        params: { path: { rig_id: edit.rig } },
        body: {
          revision: view.revision,
          ...shown.asked(),
          operations: [...meantRows(edit.operations, toRaw(view.document)), ...operations],
          label: edit.label,
          field: edit.field,
          tab: here().tab,
          key: edit.key,
        },
      })
      .catch(() => ({ data: undefined, error: undefined, response: undefined }))
    const open = rig.value?.id === edit.rig
    if (data) {
      here().tell(edit.rig, data.revision)
      if (open || !rig.value) await shown.take(data as RigAnswer, have)
      refused.value = null
      const path = open && edit.field && placed(edit.field, document.value)
      if (path && drafts[path]?.text === edit.operations[0]?.value) forget(path)
      return 'stored'
    }
    if (!response || response.status >= 500) {
      troubled.value = response ? problemsOf(error)[0]!.message : ''
      if (open) unanswered(edit, problemsOf(error)[0]!)
      return 'unanswered'
    }
    if (response.status === 409) {
      say(problemsOf(error)[0]!.message)
      if (open && !(await shown.again(edit.rig))) return 'unanswered'
      return 'changed elsewhere'
    }
    if (open) refuse(edit, operations, problemsOf(error))
    else
      say(
        phrase('shared.plan.saved', { label: edit.label, message: problemsOf(error)[0]!.message }),
      )
    return 'refused'
  }

  /** What an edit changes was removed meanwhile: its row, or the rig. */
  function gone(edit: UnsentEdit, what: 'row_removed' | 'rig_longer'): Outcome {
    const text = edit.field ? String(edit.operations[0]?.value ?? '') : ''
    const kept = text ? phrase('shared.plan.text_kept', { text }) : ''
    const { label } = edit
    say(
      what === 'row_removed'
        ? phrase('shared.plan.saved_because_row_removed', { label, kept })
        : phrase('shared.plan.saved_because_rig_longer', { label, kept }),
    )
    return 'refused'
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
      if (!operations.some((o) => o.path === first.path)) say(first.message)
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

  return { deliver, troubled, refused }
}
