/**
 * Keeps the desk's pages, so that it opens and reloads without its relay. Never what the relay answers (`/api`), and
 * never itself: the browser asks for it anew each time.
 */
declare const self: ServiceWorkerGlobalScope
/** What was built: a name for it all, and the files that make up the desk. Written in when it is built. */
declare const __BUILT__: { name: string; files: readonly string[] }

const PREFIX = 'acolhida-desk-'
const CACHE = `${PREFIX}${__BUILT__.name}`
const PAGE = '/'
const AWAY = new Set(['/word', '/day'])

self.addEventListener('install', (event) => {
  const fill = async (): Promise<void> => {
    const cache = await caches.open(CACHE)
    // Files of one name never change: what an earlier desk has kept need not be fetched again.
    for (const file of __BUILT__.files) {
      const kept = await caches.match(file)
      if (kept) await cache.put(file, kept)
      else await cache.add(file)
    }
    await cache.add(new Request(PAGE, { cache: 'reload' }))
    await self.skipWaiting()
  }
  event.waitUntil(fill())
})

self.addEventListener('activate', (event) => {
  const tidy = async (): Promise<void> => {
    const names = (await caches.keys()).filter((name) => name.startsWith(PREFIX) && name !== CACHE)
    // The desk before this one stays: a page of it may still be open, and ask for more of its files.
    for (const name of names.slice(0, -1)) await caches.delete(name)
    await self.clients.claim()
  }
  event.waitUntil(tidy())
})

/** A page from the relay, newest first; the one that is kept where the relay does not answer. */
async function page(request: Request): Promise<Response> {
  try {
    const answer = await fetch(request)
    if (answer.ok) return answer
    return (await caches.match(PAGE)) ?? answer
  } catch (error) {
    const kept = await caches.match(PAGE)
    if (kept) return kept
    throw error
  }
}

/** A file of a desk, kept from its first use on. */
async function file(request: Request): Promise<Response> {
  const kept = await caches.match(request)
  if (kept) return kept
  const answer = await fetch(request)
  if (answer.ok) await (await caches.open(CACHE)).put(request, answer.clone())
  return answer
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  // What is done away from the desk is another page, and never of an earlier moment.
  if (request.mode === 'navigate') {
    if (!AWAY.has(url.pathname)) event.respondWith(page(request))
    return
  }
  if (url.pathname.startsWith('/assets/') || url.pathname === '/tile.svg') event.respondWith(file(request))
})

export {}
