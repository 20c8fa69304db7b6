'use strict'
// Keeps the pages, and what the workshop last answered, for when it is out of reach. Nothing that is
// sent passes through here, and what the workshop answers now always comes first.
const PAGES = 'oaken-scale-pages-1'
const ANSWERS = 'oaken-scale-answers-1'

self.addEventListener('install', (event) => {
  event.waitUntil(keepPages().then(() => self.skipWaiting()))
})

self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) => names.filter((name) => name !== PAGES && name !== ANSWERS))
      .then((old) => Promise.all(old.map((name) => caches.delete(name))))
      .then(() => self.clients.claim()),
  )
})

/** The page and all that it is made of: also the places that were not opened yet. */
async function keepPages() {
  const cache = await caches.open(PAGES)
  const page = await fetch('/', { cache: 'no-store' })
  if (!page.ok) return
  await cache.put('/', page.clone())
  const list = await fetch('/files.json', { cache: 'no-store' }).catch(() => undefined)
  if (!list || !list.ok) return
  const files = await list.json()
  const there = new Set((await cache.keys()).map((request) => new URL(request.url).pathname))
  await Promise.all(
    files.filter((file) => !there.has(file)).map((file) => cache.add(file).catch(() => undefined)),
  )
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  if (url.pathname.startsWith('/assets/')) event.respondWith(fromHere(request))
  else if (request.mode === 'navigate') event.respondWith(newestPage())
  else if (/^\/api\/v1\/(builds(\/[^/]+(\/field)?)?|beginnings|rack|drawer)$/.test(url.pathname))
    event.respondWith(newestAnswer(request))
})

async function fromHere(request) {
  const known = await caches.match(request)
  if (known) return known
  const fresh = await fetch(request)
  if (fresh.ok) (await caches.open(PAGES)).put(request, fresh.clone())
  return fresh
}

async function newestPage() {
  try {
    const fresh = await fetch('/', { cache: 'no-store' })
    if (fresh.ok) {
      const kept = await caches.match('/')
      const before = kept && (await kept.text())
      const now = await fresh.clone().text()
      if (before !== now) void keepPages()
    }
    return fresh
  } catch (error) {
    const kept = await caches.match('/')
    if (kept) return kept
    throw error
  }
}

async function newestAnswer(request) {
  try {
    const fresh = await fetch(request)
    if (fresh.ok) (await caches.open(ANSWERS)).put(request, fresh.clone())
    return fresh
  } catch (error) {
    const kept = await caches.match(request)
    if (kept) return kept
    throw error
  }
}
