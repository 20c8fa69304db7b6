import { nextTick, onBeforeUnmount, watch, type Ref } from 'vue'

/** Esc puts a sheet away from the moment it opens, before the dialog itself listens; and however it
 * goes, the hand is back on what opened it. */
export function useEscape(open: Ref<boolean>) {
  let opener: Element | null = null

  function pressed(event: KeyboardEvent) {
    if (event.key === 'Escape') open.value = false
  }
  const deaf = () => window.removeEventListener('keydown', pressed)
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
