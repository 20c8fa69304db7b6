import { nextTick, onBeforeUnmount, watch, type Ref } from 'vue'
import { OPEN_LIST } from './useKeys'

/** Esc puts a sheet away from the moment it opens, before the dialog itself listens; and however it
 * goes, the hand is back on what opened it. */
export function useEscape(open: Ref<boolean>) {
  let opener: Element | null = null

  // A list that is open in it goes first, by itself: it is gone before the key arrives here. While
  // the hand is still on what opened the sheet, the key is the sheet's, and not that form's too.
  let listWasOpen = false
  function comes(event: KeyboardEvent) {
    listWasOpen = document.querySelector(OPEN_LIST) !== null
    const isWithin = event.target instanceof Element && event.target.closest('.v-overlay')
    if (event.key !== 'Escape' || listWasOpen || isWithin) return
    event.stopPropagation()
    open.value = false
  }
  function pressed(event: KeyboardEvent) {
    if (event.key === 'Escape' && !listWasOpen) open.value = false
  }
  function deaf() {
    window.removeEventListener('keydown', comes, { capture: true })
    window.removeEventListener('keydown', pressed)
  }
  async function goBack() {
    await nextTick()
    const here = document.activeElement
    const isLost = !here || here === document.body || here.closest('.v-overlay')
    if (isLost && opener instanceof HTMLElement && opener.isConnected) opener.focus()
    opener = null
  }
  watch(
    open,
    (now) => {
      if (now) {
        opener = document.activeElement
        window.addEventListener('keydown', comes, { capture: true })
        window.addEventListener('keydown', pressed)
      } else {
        deaf()
        void goBack()
      }
    },
    { immediate: true },
  )
  onBeforeUnmount(deaf)
}
