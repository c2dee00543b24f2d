import { shelf } from './shelf'
import { phrase } from '@/phrases/shared'
import type { Interpretation, Operation } from '@/api/client'
import type { RigFile } from '@/api/rigFile'
import { immutableJSONPatch, type JSONPatchOperation } from 'immutable-json-patch'
import { defineStore } from 'pinia'
import { numbers } from '@/ui/numbers'
import { computed, ref, toRaw, watch, type ComputedRef } from 'vue'
import { useDrafts } from './drafts'
import { useNewRigs, type Asker } from './newRigs'
import { createOutbox, isEdit, isRig, type UnsentEdit, type UnsentRig } from './outbox'
import { createPlanSteps } from './planSteps'
import { named, namedAll, placedAll } from './rowPath'
import { createSending } from './sendEdit'
import { createShownRig, type Outbox } from './shownRig'
import { useUi } from './ui'
import { freshKey, useWindow } from './useWindow'

/** How long nothing is edited before what takes long is run anew [ms]. */
const PAUSE_BEFORE_RUN = 350
/** How long it is not said again that saving takes long [ms]. */
const SLOW_AGAIN = 30_000
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
  let catchingUp = 0
  let toldSlow = 0
  /** The field that was typed into last. */
  let lastTyped = ''
  /** Fields typed into, each with its place in the order of typing. */
  const typed = new Map<string, number>()
  /** Something is being filled in for the owner: nobody goes on before it has come. */
  const filling = ref(0)
  /** How often the log was changed here: what is computed of it is then asked for anew. */
  const logged = ref(0)

  const say = (text: string) => ui.say(text)
  const newRigs = useNewRigs(say)
  const kept = useDrafts(() => `vast-harbor-drafts-${shown.rig.value?.id}`)
  const { drafts, put, forget } = kept
  const shown = createShownRig({
    queue: () => queue,
    document: () => document,
    rebase: kept.rebase,
    load: kept.load,
  })
  const { rig, refresh } = shown

  /** The rig as it is stored, with the choices that wait to be. */
  const document: ComputedRef<RigFile> = computed(() => {
    const stored = rig.value?.document as RigFile
    if (!stored || !queue.unanswered.value) return stored
    return queue.entries
      .filter((e): e is UnsentEdit => isEdit(e) && e.rig === rig.value!.id && !e.field && !e.undone)
      .reduce(chosen, stored)
  })

  watch(
    () => document.value?.rig.numbers,
    (of) => (numbers.value = (of as string | undefined) ?? ''),
    { immediate: true, flush: 'sync' },
  )

  const here = useWindow({
    changed: (id, revision) => {
      if (rig.value?.id === id && revision > rig.value.revision) void refresh()
    },
    seen: () => void refresh(),
    orphaned: (tab) => void queue.adopt(tab),
  })

  const sending = createSending({ shown, document, drafts: kept, newRigs, here: () => here, say })
  const queue: Outbox = createOutbox({
    deliver: sending.deliver,
    undo: (edit) => steps.undoStored(edit),
    idle: () => {
      clearTimeout(catchingUp)
      if (shown.unfinished()) catchingUp = window.setTimeout(shown.catchUp, PAUSE_BEFORE_RUN)
    },
    failed: () => say(phrase('shared.plan.change_did_arrive_please')),
    // Once in a while: who edits quickly beside a slow disk is not told at every key.
    slow: () => {
      if (Date.now() - toldSlow > SLOW_AGAIN) say(phrase('shared.plan.still_saving'))
      toldSlow = Date.now()
    },
    shelf,
    tab: () => here.tab,
  })
  void queue.adopt(here.tab)
  here.watch(() => queue.left())
  addEventListener('beforeunload', (event) => {
    if (queue.count.value) event.preventDefault()
  })

  /** The log holds something else now. */
  function logChanged(): Promise<void> {
    logged.value++
    return refresh()
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

  const steps = createPlanSteps({
    shown,
    document,
    drafts: kept,
    queue,
    here,
    lastTyped: () => lastTyped,
    say,
  })

  return {
    rig,
    document,
    missing: shown.missing,
    why: shown.why,
    drafts,
    refused: sending.refused,
    steps: steps.steps,
    troubled: sending.troubled,
    show: shown.show,
    open: shown.open,
    toStop: shown.toStop,
    refresh,
    logged,
    logChanged,
    edit,
    set,
    settled: queue.settled,
    /** Whether the browser has no room for them, so that they are gone when the page is left. */
    held: queue.held,
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
    showDay: shown.showDay,
    whatIf: steps.whatIf,
    step: steps.step,
  }
})
