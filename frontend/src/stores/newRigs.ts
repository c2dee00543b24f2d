import { phrase } from '@/phrases/shared'
import { api, problemsOf, type Problem } from '@/api/client'
import { shallowReactive } from 'vue'
import type { Outcome, UnsentRig } from './outbox'

export interface Made {
  id: number
  name: string
}

/** Who asked for a rig, as long as the page is there: what becomes of it. */
export interface Asker {
  made: (rig: Made) => void
  refused: (problems: Problem[]) => void
}

interface Answer {
  data?: Made
  error?: unknown
  response?: Response
}

async function ask({ make, rig, body, key }: UnsentRig): Promise<Answer> {
  if (make === 'copy') {
    const params = { path: { rig_id: rig }, query: { key } }
    return await api.POST('/api/rigs/{rig_id}/copy', { params })
  }
  if (make === 'new') {
    return await api.POST('/api/rigs', { params: { query: { key } }, body: JSON.parse(body) })
  }
  const response = await fetch(`/api/rigs/import?key=${key}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body,
  })
  const said = await response.json().catch(() => undefined)
  return response.ok ? { data: said, response } : { error: said, response }
}

/** Rigs that wait to be made, and who asked for them. */
export function useNewRigs(say: (text: string) => void) {
  const askers = new Map<string, Asker>()
  /** Why those that wait are not made yet. */
  const why = shallowReactive<Record<string, string>>({})

  async function deliver(entry: UnsentRig): Promise<Outcome> {
    const { data, error, response } = await ask(entry).catch((): Answer => ({}))
    if (!data && (!response || response.status >= 500)) {
      why[entry.key] = problemsOf(error)[0]!.message
      return 'unanswered'
    }
    const asker = askers.get(entry.key)
    askers.delete(entry.key)
    delete why[entry.key]
    if (data)
      (asker?.made ?? (({ name }: Made) => say(phrase('shared.new_rigs.created', { name }))))(data)
    else if (asker) asker.refused(problemsOf(error))
    else
      say(
        phrase('shared.new_rigs.label_was_not_created', {
          label: entry.label,
          message: problemsOf(error)[0]!.message,
        }),
      )
    return data ? 'stored' : 'refused'
  }

  return { deliver, why, expect: (key: string, asker: Asker) => void askers.set(key, asker) }
}
