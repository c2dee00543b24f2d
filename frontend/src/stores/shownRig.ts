import { windowShelf } from './shelf'
import { api, problemsOf, type RigAnswer, type RigView } from '@/api/client'
import type { Stop } from '@/api/lists'
import { keepLast } from '@/api/offline'
import type { RigFile } from '@/api/rigFile'
import type { JSONPatchOperation } from 'immutable-json-patch'
import { ref, shallowRef, toRaw, type ComputedRef } from 'vue'
import type { createOutbox } from './outbox'
import { named, placed } from './rowPath'
import { takePatch, takeWhole } from './takeView'

export type Outbox = ReturnType<typeof createOutbox>

interface Needs {
  queue: () => Outbox
  /** The rig as it is stored, with the choices that wait to be. */
  document: () => ComputedRef<RigFile>
  /** Take what is typed and not stored along when rows come and go. */
  rebase: (move: (path: string) => string | null) => void
  /** Bring back what was typed before a reload. */
  load: () => void
}

/** The view of the rig that is open: asked for, kept, and changed by what an answer says differs. */
export function createShownRig({ queue, document, rebase, load }: Needs) {
  const rig = shallowRef<RigView | null>(null)
  const missing = ref(false)
  /** Why the rig cannot be opened; empty where it is not there. */
  const why = ref('')
  /** Kind of day that is shown; the governing one while it is empty. */
  const show = ref('')
  /** The stop that is open, or that is asked for. */
  let stop: Stop = 'rig'
  /** Version of the view in `rig`: the server tells what differs from it. */
  let version = ''
  const showKey = () => `vast-harbor-show-${rig.value?.id}`
  const asked = () => ({ show: show.value, stop, have: version })

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
    const before =
      rig.value?.id === answer.whole?.id || answer.patch ? toRaw(document().value) : null
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
    if (before && before !== toRaw(document().value)) {
      rebase((path) => placed(named(path, before), document().value))
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
    if (!view || !unfinished() || queue().busy()) return
    const { data } = await ask(view.id).catch(() => ({ data: undefined }))
    // An edit that is on its way is answered by what differs from the view that is shown now.
    if (data && version === have && !queue().busy()) await take(data as RigAnswer, have)
  }

  async function open(id: number) {
    missing.value = false
    if (rig.value?.id !== id) {
      rig.value = null
      version = ''
      show.value = windowShelf.read(`vast-harbor-show-${id}`) ?? ''
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
    if (!view || queue().busy() || queue().unanswered.value) return
    const { data } = await ask(view.id).catch(() => ({ data: undefined }))
    if (data && version === have && !queue().busy()) await take(data as RigAnswer, have)
  }

  /** Fetch the parts of a stop; those of the one before stay until they are there. */
  async function toStop(next: Stop): Promise<void> {
    stop = next
    if (!rig.value || rig.value.stop === next) return
    await queue().inTurn(async () => {
      if (!rig.value || rig.value.stop === stop) return
      const have = version
      const { data } = await ask(rig.value.id)
      if (data) await take(data as RigAnswer, have)
    })
  }

  /** Fetch the whole rig as it is now; what is typed and not stored goes along with its rows. */
  async function again(id: number): Promise<boolean> {
    version = ''
    const { data } = await ask(id).catch(() => ({ data: undefined }))
    if (data) await take(data as RigAnswer, '')
    return Boolean(data)
  }

  /** Show another kind of day. */
  async function showDay(id: string) {
    await queue().settled()
    show.value = id
    windowShelf.write(showKey(), id)
    if (rig.value) await open(rig.value.id)
  }

  return {
    rig,
    missing,
    why,
    show,
    version: () => version,
    asked,
    take,
    unfinished,
    catchUp,
    open,
    refresh,
    toStop,
    again,
    showDay,
  }
}
