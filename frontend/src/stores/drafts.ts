import { windowShelf } from './shelf'
import type { Interpretation } from '@/api/client'
import { reactive } from 'vue'

/** What was typed into a field and is not stored: it is on its way, or it was refused. */
export interface Draft {
  text: string
  message: string
  /** What may have been meant instead. */
  interpretations?: Interpretation[]
}

/** The drafts of the rig that is open, kept over a reload of the page. */
export function useDrafts(key: () => string) {
  // Each field follows its own draft only.
  const drafts = reactive<Record<string, Draft>>({})

  function keep() {
    windowShelf.write(key(), JSON.stringify(drafts))
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
    load: () => replace(JSON.parse(windowShelf.read(key()) ?? '{}')),
    /**
     * Take the drafts along when rows come and go.
     *
     * @param move the new JSON pointer of a draft; null where its row is gone.
     * @returns the drafts whose row is gone.
     */
    rebase(move: (path: string) => string | null): Draft[] {
      const kept: Record<string, Draft> = {}
      const gone: Draft[] = []
      for (const [path, draft] of Object.entries({ ...drafts })) {
        const now = move(path)
        if (now === null) gone.push(draft)
        else kept[now] = draft
      }
      replace(kept)
      keep()
      return gone
    },
  }
}
