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

  // A button that was pressed by hand lets go of the keyboard: the next key is the place's again.
  // One that was reached and pressed by keys keeps it.
  function letGo(event: MouseEvent) {
    const at = document.activeElement
    if (event.detail > 0 && at instanceof HTMLButtonElement && at.contains(event.target as Node))
      at.blur()
  }

  onMounted(() => {
    window.addEventListener('keydown', pressed)
    window.addEventListener('click', letGo)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('keydown', pressed)
    window.removeEventListener('click', letGo)
  })
}
