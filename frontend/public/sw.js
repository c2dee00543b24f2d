/*
 * Keeps the application and the last state of each rig readable while the program does not answer. It never
 * sends anything by itself: edits wait in the page's outbox.
 */
const SHELL = 'vast-harbor-shell'
const LAST = 'vast-harbor-last'
const LISTS = new Set(['/api/rigs', '/api/reference', '/api/appliances'])
const LOG = /^\/api\/rigs\/\d+\/log$/
const RIG = /^\/api\/rigs\/(\d+)$/

/** Bring the files of the application up to date: those of this build, and no others. */
async function renew() {
  const response = await fetch('/assets.json', { cache: 'no-cache' })
  if (!response.ok) return
  const built = Object.values(await response.json())
  const wanted = new Set(['/', '/mark.svg', '/manifest.webmanifest'])
  for (const one of built)
    for (const file of [one.file, ...(one.css ?? []), ...(one.assets ?? [])]) wanted.add(`/${file}`)
  const cache = await caches.open(SHELL)
  const there = new Set((await cache.keys()).map((r) => new URL(r.url).pathname))
  await Promise.all([...there].filter((p) => !wanted.has(p)).map((p) => cache.delete(p)))
  await Promise.all(
    [...wanted]
      .filter((p) => p === '/' || !there.has(p))
      .map((p) => cache.add(p).catch(() => undefined)),
  )
}

const old = (response) => {
  const headers = new Headers(response.headers)
  headers.set('X-Vast-Harbor-Last', '1')
  return response.blob().then((body) => new Response(body, { status: 200, headers }))
}

async function list(request, key) {
  const cache = await caches.open(LAST)
  try {
    const response = await fetch(request)
    if (response.ok) await cache.put(key, response.clone())
    return response
  } catch (error) {
    const kept = await cache.match(key)
    if (kept) return old(kept)
    throw error
  }
}

/** A rig as the page kept it last, of the stop that is asked for or of any. */
async function rig(request, id, stop) {
  try {
    return await fetch(request)
  } catch (error) {
    const cache = await caches.open(LAST)
    const kept =
      (await cache.match(`/last/rigs/${id}/${stop}`)) ??
      (await cache.match(
        (await cache.keys()).find((k) => k.url.includes(`/last/rigs/${id}/`)) ?? '/none',
      ))
    if (kept) return old(kept)
    throw error
  }
}

async function shell(request) {
  const cache = await caches.open(SHELL)
  const kept = await cache.match(new URL(request.url).pathname)
  return kept ?? (await fetch(request))
}

async function page(request) {
  try {
    return await fetch(request)
  } catch (error) {
    const kept = await caches.match('/')
    if (kept) return kept
    throw error
  }
}

self.addEventListener('install', (event) => {
  self.skipWaiting()
  event.waitUntil(renew())
})
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
self.addEventListener('message', (event) => {
  if (event.data === 'renew') event.waitUntil(renew())
})
self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  const found = RIG.exec(url.pathname)
  if (found) event.respondWith(rig(request, found[1], url.searchParams.get('stop') || 'rig'))
  else if (LISTS.has(url.pathname) || (LOG.test(url.pathname) && !url.searchParams.has('at')))
    event.respondWith(list(request, url.pathname + url.search))
  else if (url.pathname.startsWith('/assets/')) event.respondWith(shell(request))
  else if (request.mode === 'navigate' && !url.pathname.startsWith('/api/'))
    event.respondWith(page(request))
})
