import { ref } from 'vue'
import { refusal, type Called } from '../say/refusals'
import {
  answered,
  api,
  RefusedError,
  type Kind,
  type Measure,
  type Understood,
} from '../api/client'
import { whileUnderWay } from './underWay'

/** What a typed figure is of, and the plane that it is on: an absurd one is asked about. */
export interface Of {
  measure?: Measure
  build?: string | undefined
  /** The lot that it is of: of one with a size, "2/3 sheet" is understood. */
  lot?: string | undefined
}

/** Read what was typed; the server is the one place that understands it. */
export async function understood(
  text: string,
  kind: Kind,
  unit?: string,
  of?: Of,
): Promise<Understood> {
  const query = { text, kind, unit: unit?.replace('²', '2'), ...of }
  return whileUnderWay(answered<Understood>(api.GET('/api/v1/quantity', { params: { query } })))
}

/** What was typed as a number in the base unit of its kind. */
export async function understand(text: string, kind: Kind, unit?: string): Promise<number> {
  return (await understood(text, kind, unit)).value
}

/** Why a text was not understood, in words for beside its field: what was typed is not named, and
 * other fields are called as their page calls them. */
export function whyNot(error: unknown, called: Called = () => undefined): string {
  if (error instanceof TypeError) return 'the workshop does not answer; what you typed stays here'
  if (error instanceof RefusedError && error.problem)
    return refusal(error.problem, (field) => called(field) ?? (field === 'text' ? '' : undefined))
  return (error as Error).message
}

/** A field's text with what it was understood to be, echoed while it is typed. */
export function useQuantity(kind: Kind, unit: () => string | undefined) {
  const text = ref('')
  const value = ref<number>()
  const wrong = ref('')
  /** Whether the workshop said that it cannot be read; not so while it does not answer. */
  const refused = ref(false)
  let asked = 0

  async function typed(next: string) {
    text.value = next
    const turn = ++asked
    wrong.value = ''
    refused.value = false
    value.value = undefined
    if (!next.trim()) return
    try {
      const told = await understand(next, kind, unit())
      if (turn === asked) value.value = told
    } catch (error) {
      if (turn !== asked) return
      wrong.value = whyNot(error)
      refused.value = !(error instanceof TypeError)
    }
  }

  function clear() {
    asked++
    refused.value = false
    text.value = ''
    value.value = undefined
    wrong.value = ''
  }

  return { text, value, wrong, refused, typed, clear }
}
