import { ref, watch } from 'vue'

const SHELF = 'oaken-scale-place-lines'

/** Whether each place says in a line what it is; once hidden, the sheet of keys shows them again. */
const isShown = ref(localStorage.getItem(SHELF) !== 'off')
watch(isShown, (on) => localStorage.setItem(SHELF, on ? 'on' : 'off'))

export function usePlaceLines() {
  return { isShown, hide: () => (isShown.value = false) }
}
