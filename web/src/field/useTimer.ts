import { computed, onBeforeUnmount, ref } from 'vue'

const SHELF = 'oaken-scale-timer-'

interface Kept {
  since: number | null
  before_ms: number
}

/** A timer of a build's flight. It lies in the browser: it goes on while the page is closed. */
export function useTimer(build: string) {
  const read = (): Kept => {
    try {
      const kept = JSON.parse(localStorage.getItem(SHELF + build) ?? '') as Kept
      return { since: kept.since, before_ms: kept.before_ms }
    } catch {
      return { since: null, before_ms: 0 }
    }
  }
  const kept = ref(read())
  const now = ref(Date.now())
  const beat = setInterval(() => (now.value = Date.now()), 250)
  onBeforeUnmount(() => clearInterval(beat))

  function keep(next: Kept) {
    kept.value = next
    now.value = Date.now()
    localStorage.setItem(SHELF + build, JSON.stringify(next))
  }
  const running = computed(() => kept.value.since !== null)
  // A clock that is set back meanwhile takes no time away that was counted before.
  const ms = computed(
    () =>
      kept.value.before_ms +
      (kept.value.since === null ? 0 : Math.max(0, now.value - kept.value.since)),
  )
  const shown = computed(() => {
    const s = Math.floor(ms.value / 1000)
    return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
  })

  function toggle() {
    if (running.value) keep({ since: null, before_ms: ms.value })
    else keep({ since: Date.now(), before_ms: kept.value.before_ms })
  }
  function clear() {
    localStorage.removeItem(SHELF + build)
    kept.value = { since: null, before_ms: 0 }
  }
  return { running, ms, shown, toggle, clear }
}
