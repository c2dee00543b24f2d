import type { Interpretation } from '@/api/client'
import { reactive } from 'vue'

/** What was typed into a field and is not stored: it is on its way, or it was refused. */
export interface Draft {
  text: string
  message: string
  /** What may have been meant instead. */
  interpretations?: Interpretation[]
}

/**
 * Drafts stay with their rows when one above them is removed.
 *
 * @param drafts by JSON pointer.
 * @param removed JSON pointer of the row that was removed.
 * @returns the drafts by their new pointers, without those of the row itself.
 */
export function renumbered(drafts: Record<string, Draft>, removed: string): Record<string, Draft> {
  const [, list, index] = /^(.*)\/(\d+)$/.exec(removed) ?? []
  if (!list) return drafts
  const kept = Object.entries(drafts).flatMap(([path, draft]) => {
    const [, at, rest] = path.startsWith(`${list}/`)
      ? (/^(\d+)(.*)$/.exec(path.slice(list.length + 1)) ?? [])
      : []
    if (at === undefined || Number(at) < Number(index)) return [[path, draft] as const]
    return Number(at) === Number(index)
      ? []
      : [[`${list}/${Number(at) - 1}${rest}`, draft] as const]
  })
  return Object.fromEntries(kept)
}

/** The drafts of the rig that is open, kept over a reload of the page. */
export function useDrafts(key: () => string) {
  // Each field follows its own draft only.
  const drafts = reactive<Record<string, Draft>>({})

  function keep() {
    sessionStorage.setItem(key(), JSON.stringify(drafts))
  }

  function replace(next: Record<string, Draft>) {
    for (const path of Object.keys(drafts)) if (!(path in next)) delete drafts[path]
    Object.assign(drafts, next)
  }

  function put(path: string, draft: Draft) {
    drafts[path] = draft
    keep()
  }

  /** Give up what was typed and refused; the stored value stands. */
  function forget(path: string) {
    delete drafts[path]
    keep()
  }

  function clear() {
    replace({})
    keep()
  }

  return {
    drafts,
    put,
    forget,
    clear,
    load: () => replace(JSON.parse(sessionStorage.getItem(key()) ?? '{}')),
    renumber(removed: string) {
      replace(renumbered({ ...drafts }, removed))
      keep()
    },
  }
}
