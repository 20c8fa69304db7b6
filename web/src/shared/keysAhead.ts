import { onBeforeUnmount } from 'vue'

const WALK = new Set(['ArrowDown', 'ArrowUp', 'Home', 'End', 'Enter', ' '])
const FRAMES = 60

const option = () =>
  document.activeElement?.closest<HTMLElement>('.v-overlay__content [role=option]')

/**
 * A list takes the focus only when it stands, some frames after it was opened. Keys pressed before
 * that are kept for it and acted on in their order, so that a fast hand chooses what it meant.
 */
export function useKeysAhead() {
  let ahead: KeyboardEvent[] = []
  let stands = false

  function hold(event: KeyboardEvent) {
    if (!event.isTrusted || !WALK.has(event.key)) return
    if (event.ctrlKey || event.altKey || event.metaKey) return
    if (stands && option() && !ahead.length) return
    event.preventDefault()
    event.stopImmediatePropagation()
    ahead.push(event)
    if (ahead.length === 1) act(FRAMES)
  }

  function act(frames: number) {
    const key = ahead[0]
    if (!key) return
    const at = stands ? option() : null
    const first = frames ? at : standing()
    if (first) {
      ahead.shift()
      if (first !== at) first.focus()
      first.dispatchEvent(
        new KeyboardEvent('keydown', { key: key.key, bubbles: true, cancelable: true }),
      )
    } else if (!frames) return forget()
    requestAnimationFrame(() => act(first ? FRAMES : frames - 1))
  }

  /** The chosen line of the list that stands open, or its first. */
  function standing() {
    const open = '.v-overlay--active .v-overlay__content'
    return (
      document.querySelector<HTMLElement>(`${open} [role=option][aria-selected=true]`) ??
      document.querySelector<HTMLElement>(`${open} [role=option]`)
    )
  }

  function forget() {
    ahead = []
    stands = false
    window.removeEventListener('keydown', hold, { capture: true })
  }

  /** The list is opening, or is closed. */
  function opened(isOpen: boolean) {
    forget()
    if (isOpen) window.addEventListener('keydown', hold, { capture: true })
  }

  /** Its way in is over: what moves the focus by itself has done so. */
  function entered() {
    stands = true
  }

  onBeforeUnmount(forget)
  return { opened, entered }
}
