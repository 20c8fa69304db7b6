import { ref, watch } from 'vue'
import { answered, api, RefusedError, type NewWeighing, type Recorded } from '../api/client'
import { isForLater } from './later'
import { inWordsOfToday } from './olderWords'

/** A reading on its way to the log of a build. */
export interface Waiting {
  build: string
  reading: NewWeighing
}

const RETRY_MS = 2500
const SHELF = 'oaken-scale-waiting-'
const OLD_SHELF = 'oaken-scale-outbox-'

/**
 * Readings on their way to the log, of all builds. Each waits in the browser under its own id until
 * the server has said that it is kept: sending one again never records it twice, and two pages never
 * overwrite each other. They are sent from whichever place is open.
 */
const waiting = ref<Waiting[]>([])

interface Listener {
  kept: (build: string, recorded: Recorded) => void
  refused: (build: string, error: unknown, reading: NewWeighing | null) => void
}
const listeners = new Set<Listener>()

function stored(): Waiting[] {
  const found: Waiting[] = []
  for (const key of Object.keys(localStorage)) {
    try {
      if (key.startsWith(SHELF)) {
        const { build, reading } = JSON.parse(localStorage.getItem(key) ?? '') as Waiting
        found.push({ build, reading: inWordsOfToday(reading) })
      }
      if (!key.startsWith(OLD_SHELF)) continue
      const build = key.slice(OLD_SHELF.length)
      for (const reading of JSON.parse(localStorage.getItem(key) ?? '[]') as NewWeighing[]) {
        localStorage.setItem(SHELF + reading.id, JSON.stringify({ build, reading }))
        found.push({ build, reading: inWordsOfToday(reading) })
      }
      localStorage.removeItem(key)
    } catch {
      // What cannot be read any more is left where it lies.
    }
  }
  return found.sort((one, other) => (one.reading.at ?? '').localeCompare(other.reading.at ?? ''))
}

const busy = ref(false)
let later: ReturnType<typeof setTimeout> | undefined

async function flush() {
  clearTimeout(later)
  if (busy.value) return
  busy.value = true
  try {
    for (let next = waiting.value[0]; next; next = waiting.value[0]) await deliver(next)
  } catch (error) {
    const build = waiting.value[0]?.build ?? ''
    for (const each of listeners) each.refused(build, error, null)
    later = setTimeout(() => void flush(), RETRY_MS)
  } finally {
    busy.value = false
  }
}

async function deliver({ build, reading }: Waiting) {
  let done: Recorded | undefined
  let refusal: unknown
  try {
    done = await answered<Recorded>(
      api.POST('/api/v1/builds/{build_id}/weighings', {
        params: { path: { build_id: build } },
        body: reading,
      }),
    )
  } catch (error) {
    if (!(error instanceof RefusedError) || isForLater(error.status)) throw error
    refusal = error
  }
  localStorage.removeItem(SHELF + reading.id)
  waiting.value = waiting.value.filter((each) => each.reading.id !== reading.id)
  for (const each of listeners) {
    if (done) each.kept(build, done)
    else each.refused(build, refusal, reading)
  }
}

/** Keep a reading here at once, and send it when `ready`; done when it was tried once. */
function post(build: string, reading: NewWeighing, ready: Promise<void>): Promise<void> {
  localStorage.setItem(SHELF + reading.id, JSON.stringify({ build, reading }))
  waiting.value = [...waiting.value, { build, reading }]
  return ready.then(flush)
}

/** Done when no reading of this page is on its way to a build, or nothing answers. */
async function quiet(build: string): Promise<void> {
  const isSending = () => busy.value && waiting.value.some((each) => each.build === build)
  if (!isSending()) return
  await new Promise<void>((done) => {
    const stop = watch([waiting, busy], () => {
      if (isSending()) return
      stop()
      done()
    })
  })
}

/** Take up what waits here, from this page or another one that was closed. */
export function openOutbox() {
  const known = new Set(waiting.value.map((each) => each.reading.id))
  waiting.value = [...waiting.value, ...stored().filter((each) => !known.has(each.reading.id))]
  if (waiting.value.length) void flush()
}

export function listen(listener: Listener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export const outbox = { waiting, post, flush, quiet }
