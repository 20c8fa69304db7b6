import { ref } from 'vue'
import { RefusedError } from '../api/client'

const words = ref('')
const tone = ref<'plain' | 'wrong'>('plain')

/** The one line in which the product says what happened, or what would be right. */
export function useWords() {
  function say(text: string) {
    words.value = text
    tone.value = 'plain'
  }

  function complain(error: unknown) {
    tone.value = 'wrong'
    if (error instanceof RefusedError) words.value = error.message
    else if (error instanceof TypeError) {
      words.value = 'The workshop does not answer; nothing is lost. It is tried again by itself.'
    } else words.value = String(error)
  }

  function hush() {
    words.value = ''
  }

  return { words, tone, say, complain, hush }
}
