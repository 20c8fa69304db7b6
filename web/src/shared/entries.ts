import { isForLater } from './later'
import { ref } from 'vue'
import { answered, api, RefusedError, type AtTheField, type Schemas } from '../api/client'

/** What is written down at the field: a throw, a flight, a tick, a note, a setting. */
export type Entry =
  | Schemas['ThrowEntry']
  | Schemas['FlightEntry']
  | Schemas['TickEntry']
  | Schemas['NoteEntry']
  | Schemas['OwnLineEntry']
  | Schemas['BentEntry']
  | Schemas['SetAsideEntry']

/** An entry on its way home; one that was refused stays until somebody has read why. */
export interface WaitingEntry {
  key: string
  build: string
  entry: Entry
  refused?: string
}

const SHELF = 'oaken-scale-field-'
const RETRY_MS = 2500

/**
 * Entries of all builds, in the order in which they were made. Each lies in the browser under its
 * own key until the workshop has it: the page may be closed meanwhile, for hours.
 */
export const waitingEntries = ref<WaitingEntry[]>([])
/** Whether the workshop answered the last time that it was asked. */
export const outOfReach = ref(false)

type Listener = (build: string, field: AtTheField) => void
const listeners = new Set<Listener>()

export function onHome(listener: Listener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

let count = 0
function nextKey(): string {
  count = (count + 1) % 100_000
  // Numbered after the last that waits here: a clock that is set back does not change the order.
  const last = waitingEntries.value.at(-1)?.key.split('-')[0] ?? '0'
  const at = Math.max(Date.now(), Number(last) + 1)
  return `${String(at).padStart(15, '0')}-${String(count).padStart(5, '0')}`
}

export function postEntry(build: string, entry: Entry) {
  const waiting = { key: nextKey(), build, entry }
  localStorage.setItem(SHELF + waiting.key, JSON.stringify(waiting))
  waitingEntries.value = [...waitingEntries.value, waiting]
  void flush()
}

function drop(key: string) {
  localStorage.removeItem(SHELF + key)
  waitingEntries.value = waitingEntries.value.filter((each) => each.key !== key)
}

/** Let go of an entry that the workshop refused. */
export const letGo = drop

let busy = false
let later: ReturnType<typeof setTimeout> | undefined

async function flush() {
  clearTimeout(later)
  if (busy) return
  busy = true
  try {
    for (;;) {
      const next = waitingEntries.value.find((each) => each.refused === undefined)
      if (!next) break
      await deliver(next)
    }
  } catch {
    outOfReach.value = true
    later = setTimeout(() => void flush(), RETRY_MS)
  } finally {
    busy = false
  }
}

async function deliver(waiting: WaitingEntry) {
  try {
    const home = await answered<{ is_new: boolean; field: AtTheField }>(
      api.POST('/api/v1/builds/{build_id}/field/entries', {
        params: { path: { build_id: waiting.build } },
        body: waiting.entry,
      }),
    )
    outOfReach.value = false
    for (const each of listeners) each(waiting.build, home.field)
    drop(waiting.key)
  } catch (error) {
    if (!(error instanceof RefusedError) || isForLater(error.status)) throw error
    const refused = { ...waiting, refused: error.message }
    localStorage.setItem(SHELF + waiting.key, JSON.stringify(refused))
    waitingEntries.value = waitingEntries.value.map((each) =>
      each.key === waiting.key ? refused : each,
    )
  }
}

/** Take up what waits here, from this page or another one that was closed. */
export function openEntries() {
  const known = new Set(waitingEntries.value.map((each) => each.key))
  const found: WaitingEntry[] = []
  for (const key of Object.keys(localStorage)) {
    if (!key.startsWith(SHELF)) continue
    try {
      const waiting = JSON.parse(localStorage.getItem(key) ?? '') as WaitingEntry
      if (!known.has(waiting.key)) found.push(waiting)
    } catch {
      // What cannot be read any more is left where it lies.
    }
  }
  found.sort((one, other) => one.key.localeCompare(other.key))
  waitingEntries.value = [...found, ...waitingEntries.value]
  if (found.length) void flush()
}

window.addEventListener('online', () => void flush())
