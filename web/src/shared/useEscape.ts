import { onBeforeUnmount, watch, type Ref } from 'vue'

/** Esc puts a sheet away from the moment it opens, before the dialog itself listens. */
export function useEscape(open: Ref<boolean>) {
  function pressed(event: KeyboardEvent) {
    if (event.key === 'Escape') open.value = false
  }
  const deaf = () => window.removeEventListener('keydown', pressed)
  watch(open, (now) => (now ? window.addEventListener('keydown', pressed) : deaf()), {
    immediate: true,
  })
  onBeforeUnmount(deaf)
}
