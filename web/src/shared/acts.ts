import { ref } from 'vue'
import { isForLater } from './later'
import { addressOfToday, inWordsOfToday } from './olderWords'

/** A change as it was sent: enough to send it again, from this page or the next one. */
export interface Act {
  id: string
  build: string
  at: string
  method: string
  url: string
  match: string | null
  body: string
}

const SHELF = 'oaken-scale-act-'
const RETRY_MS = 2000

/** Changes that the workshop has not answered yet, oldest first. */
export const acts = ref<Act[]>([])

let sent: Act | undefined

/** Remember a change as it goes out, should nothing answer. */
export async function noted(request: Request): Promise<void> {
  const found = /\/api\/v1\/builds\/([^/?]+)/.exec(request.url)
  if (!found || request.method === 'GET') return
  sent = {
    id: crypto.randomUUID(),
    build: decodeURIComponent(found[1] ?? ''),
    at: new Date().toISOString(),
    method: request.method,
    url: request.url,
    match: request.headers.get('If-Match'),
    body: await request.clone().text(),
  }
}

/** Keep the change that was sent last, and send it until something answers. */
export async function untilAnswered(build: string): Promise<Response | undefined> {
  const act = sent
  if (!act || act.build !== build) return undefined
  localStorage.setItem(SHELF + act.id, JSON.stringify(act))
  acts.value = [...acts.value, act]
  return again(act)
}

async function again(act: Act): Promise<Response> {
  for (;;) {
    await new Promise((done) => setTimeout(done, RETRY_MS))
    try {
      const response = await fetch(act.url, {
        method: act.method,
        headers: {
          ...(act.body ? { 'Content-Type': 'application/json' } : {}),
          ...(act.match ? { 'If-Match': act.match } : {}),
        },
        body: act.body || null,
      })
      if (!isForLater(response.status)) {
        localStorage.removeItem(SHELF + act.id)
        acts.value = acts.value.filter((each) => each.id !== act.id)
        return response
      }
    } catch {
      // Nothing answers yet.
    }
  }
}

/** A change that has waited since an older version asks what it meant then. */
const ofToday = (act: Act): Act => ({
  ...act,
  url: addressOfToday(act.url),
  body: act.body && JSON.stringify(inWordsOfToday(JSON.parse(act.body))),
})

/** Changes of a build that a page before this one could not bring home; each with its answer. */
export function leftOver(build: string): Promise<Response>[] {
  const known = new Set(acts.value.map((each) => each.id))
  const found: Act[] = []
  for (const key of Object.keys(localStorage)) {
    if (!key.startsWith(SHELF)) continue
    try {
      const act = JSON.parse(localStorage.getItem(key) ?? '') as Act
      if (act.build === build && !known.has(act.id)) found.push(ofToday(act))
    } catch {
      localStorage.removeItem(key)
    }
  }
  found.sort((one, other) => one.at.localeCompare(other.at))
  acts.value = [...acts.value, ...found]
  return found.map(again)
}
