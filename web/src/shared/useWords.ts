import { ref } from 'vue'
import { RefusedError } from '../api/client'
import type { Called } from '../say/refusals'
import { whyNot } from './useQuantity'

const words = ref('')
const tone = ref<'plain' | 'wrong'>('plain')
const undo = ref<() => void>()

/** The one line in which the product says what happened, or what would be right. */
export function useWords() {
  function say(text: string) {
    words.value = text
    tone.value = 'plain'
    undo.value = undefined
  }

  /** Say that something was removed; one press brings it back. */
  function removed(what: string, back: () => unknown) {
    say(`${what} removed.`)
    undo.value = () => {
      hush()
      void back()
    }
  }

  /** Say why something was not kept, each field called as the page calls it. */
  function complain(error: unknown, called?: Called) {
    tone.value = 'wrong'
    undo.value = undefined
    if (error instanceof RefusedError) words.value = whyNot(error, called)
    else if (error instanceof TypeError) {
      words.value =
        'The workshop does not answer. What you did waits here, and is sent when it does.'
    } else words.value = error instanceof Error ? error.message : String(error)
  }

  function hush() {
    words.value = ''
    undo.value = undefined
  }

  return { words, tone, undo, say, removed, complain, hush }
}
