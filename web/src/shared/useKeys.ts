import { afterFigures } from './figures'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

/** Whether single keys do anything; Alt and Ctrl go on working, and so does every control. */
const single = ref(localStorage.getItem('oaken-scale-keys') !== 'off')
watch(single, (on) => localStorage.setItem('oaken-scale-keys', on ? 'on' : 'off'))

/** Whether single keys are on, to be switched on the sheet of keys. */
export function useSingleKeys() {
  return single
}

/** Whether somebody is typing, so that keys mean letters. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target instanceof HTMLInputElement) return !/^(checkbox|radio|button)$/.test(target.type)
  return target.isContentEditable || /^(TEXTAREA|SELECT)$/.test(target.tagName)
}

/** Whether a key belongs to the control in focus: space and Enter press it, arrows walk in it. */
function isItsOwn(event: KeyboardEvent): boolean {
  const at = event.target
  if (!(at instanceof HTMLElement) || !/^( |enter|arrow.*)$/i.test(event.key)) return false
  return (
    at.closest('button, a, summary, input, [role="button"], [role="menuitem"], [role="tab"]') !==
    null
  )
}

/** A list to choose from that is open now. */
export const OPEN_LIST = '.v-overlay--active [role="listbox"]'

type Act = (event: KeyboardEvent) => void

/** Keys of a place, by `event.key` in lower case. They never fire while typing in a field. With
 * `typing` a key of the list goes with Alt as well, out of any field. */
export function useKeys(keys: Record<string, Act>, typing: Record<string, Act> = {}) {
  function pressed(event: KeyboardEvent) {
    // A key that the control in focus has answered is done with.
    if (event.ctrlKey || event.metaKey || event.defaultPrevented) return
    if (document.querySelector(`[role="dialog"], ${OPEN_LIST}`)) return
    if (event.altKey) {
      const jump = typing[/^Key([A-Z])$/.exec(event.code)?.[1]?.toLowerCase() ?? event.key]
      if (jump) {
        event.preventDefault()
        void afterFigures(() => jump(event))
      }
      return
    }
    if (!single.value || isTyping(event.target) || isItsOwn(event)) return
    const key = event.key.toLowerCase()
    const act = keys[key] ?? typing[key]
    if (!act) return
    event.preventDefault()
    void afterFigures(() => act(event))
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
