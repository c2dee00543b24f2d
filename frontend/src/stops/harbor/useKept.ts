import { api, problemsOf, type Schemas } from '@/api/client'
import { ref } from 'vue'

/** Where the rigs lie, the copies of them, and what was deleted. */
export function useKept(restored: (rigs: number) => void) {
  const kept = ref<Schemas['KeptView'] | null>(null)
  const problem = ref('')
  const busy = ref(false)

  async function load() {
    const { data, error } = await api
      .GET('/api/kept')
      .catch(() => ({ data: undefined, error: undefined }))
    problem.value = data ? '' : problemsOf(error)[0]!.message
    if (data) kept.value = data
  }

  async function put(ask: () => Promise<{ data?: Schemas['RestoredView']; error?: unknown }>) {
    busy.value = true
    problem.value = ''
    const { data, error } = await ask().catch(() => ({ data: undefined, error: undefined }))
    busy.value = false
    if (!data) {
      problem.value = problemsOf(error)[0]!.message
      return
    }
    await load()
    restored(data.rigs)
  }

  /** Put a kept copy in place of what is there. */
  const putCopy = (name: string) => put(() => api.POST('/api/kept/restore', { body: { name } }))

  /** Put a file with all rigs in place of what is there. */
  const putFile = (file: File) =>
    put(async () => {
      const response = await fetch('/api/restore', {
        method: 'POST',
        headers: { 'Content-Type': 'application/octet-stream' },
        body: file,
      })
      const said = await response.json()
      return response.ok ? { data: said } : { error: said }
    })

  return { kept, problem, busy, load, putCopy, putFile }
}
