import { useLocalStorage } from '@vueuse/core'

/** The paper that is printed on; kept on this device. */
export const paper = useLocalStorage<'a4' | 'letter'>(
  'oaken-scale-paper',
  /^en-(US|CA)$/.test(navigator.language) ? 'letter' : 'a4',
)
