import { ref } from 'vue'
import { RefusedError } from '../api/client'
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

  function complain(error: unknown) {
    tone.value = 'wrong'
    undo.value = undefined
    // The words about a body name it themselves.
    if (error instanceof RefusedError)
      words.value = whyNot(error, (field) => (field.startsWith('bodies.') ? '' : undefined))
    else if (error instanceof TypeError) {
      words.value =
        'The workshop does not answer. What you did waits here, and is sent when it does.'
    } else words.value = String(error)
  }

  function hush() {
    words.value = ''
    undo.value = undefined
  }

  return { words, tone, undo, say, removed, complain, hush }
}
