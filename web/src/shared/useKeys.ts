import { onBeforeUnmount, onMounted } from 'vue'

/** Whether somebody is typing, so that keys mean letters. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  )
}

/** Keys of a place, by `event.key` in lower case. They never fire while typing in a field. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>) {
  function pressed(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
    if (document.querySelector('[role="dialog"]')) return
    const act = keys[event.key.toLowerCase()]
    if (!act) return
    event.preventDefault()
    act(event)
  }

  // A focused button would answer the space bar a second time when it is let go.
  function released(event: KeyboardEvent) {
    if (event.key === ' ' && keys[' '] && !isTyping(event.target)) event.preventDefault()
  }

  onMounted(() => {
    window.addEventListener('keydown', pressed)
    window.addEventListener('keyup', released)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('keydown', pressed)
    window.removeEventListener('keyup', released)
  })
}
