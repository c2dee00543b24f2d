import { ref } from 'vue'

/** Whether the program did not answer the last request, or a state that was kept answered for it. */
export const offline = ref(false)
const KEPT = 'X-Vast-Harbor-Last'
const CACHE = 'vast-harbor-last'

/** Ask, and remember whether anybody answered. */
export async function asking(request: Request): Promise<Response> {
  try {
    const response = await fetch(request)
    offline.value = response.headers.has(KEPT)
    return response
  } catch (error) {
    // Who is no longer asked is not missing.
    if (!request.signal.aborted) offline.value = true
    throw error
  }
}

let timer = 0

/** Keep the rig as it is shown, so that it can be read while the program does not answer. */
export function keepLast(id: number, stop: string, answer: () => unknown): void {
  if (!('caches' in globalThis) || !navigator.serviceWorker?.controller) return
  clearTimeout(timer)
  timer = window.setTimeout(async () => {
    const cache = await caches.open(CACHE)
    const body = new Response(JSON.stringify(answer()), {
      headers: { 'Content-Type': 'application/json' },
    })
    await cache.put(`/last/rigs/${id}/${stop}`, body)
  }, 500)
}
