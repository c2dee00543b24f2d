import { onWatcherCleanup } from 'vue'

/**
 * Asks for what a watcher shows. Answers can come in another order than their questions did: only that of the
 * newest question counts, and what is no longer waited for is given up by the program, too.
 *
 * Call it in a watcher, before anything is awaited there. Null where another question followed, or nobody
 * answered.
 */
export async function newest<T>(ask: (signal: AbortSignal) => Promise<T>): Promise<T | null> {
  const leaving = new AbortController()
  onWatcherCleanup(() => leaving.abort())
  const answer = await ask(leaving.signal).catch(() => null)
  return leaving.signal.aborted ? null : answer
}
