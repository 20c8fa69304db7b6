import type { Directive } from 'vue'

const FRAMES = 60
const FIELD = 'input:not([type=hidden]), textarea'

/**
 * The hand begins here: the field takes the focus in the first frame in which it can, once. A hand
 * that is further already stays where it is.
 */
export const vFirst: Directive<HTMLElement, boolean | undefined> = {
  mounted(el, { value }) {
    if (value === false) return
    const before = document.activeElement
    function begin(frames: number) {
      const field = el.matches(FIELD) ? el : el.querySelector(FIELD)
      if (!(field instanceof HTMLElement) || !field.isConnected) return
      const at = document.activeElement
      if (at !== before && at !== document.body && !at?.contains(el)) return
      field.focus()
      if (document.activeElement !== field && frames) requestAnimationFrame(() => begin(frames - 1))
    }
    begin(FRAMES)
  },
}
