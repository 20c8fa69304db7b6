import { onBeforeUnmount, onMounted } from 'vue'

/** Whether somebody is typing, so that keys mean letters. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  )
}

/** Whether a key belongs to the control in focus: space and Enter press it, arrows walk in it. */
function isItsOwn(event: KeyboardEvent): boolean {
  const at = event.target
  if (!(at instanceof HTMLElement) || !/^( |enter|arrow.*)$/i.test(event.key)) return false
  return at.closest('button, a, summary, [role="button"], [role="menuitem"], [role="tab"]') !== null
}

/** Keys of a place, by `event.key` in lower case. They never fire while typing in a field. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>) {
  function pressed(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
    if (isItsOwn(event)) return
    if (document.querySelector('[role="dialog"]')) return
    const act = keys[event.key.toLowerCase()]
    if (!act) return
    event.preventDefault()
    act(event)
  }

  onMounted(() => {
    window.addEventListener('keydown', pressed)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('keydown', pressed)
  })
}
