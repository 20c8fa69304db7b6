import { onBeforeUnmount, ref, watch, type Ref } from 'vue'
import { answered, api, RefusedError, type NewWeighing, type Recorded } from '../api/client'

const RETRY_MS = 2500

/**
 * Readings on their way to the log. They wait in the browser until the server has said that they
 * are kept, and each carries its own id, so that sending one again never records it twice.
 */
export function useOutbox(
  id: Ref<string>,
  kept: (recorded: Recorded) => void,
  refused: (error: unknown) => void,
) {
  const waiting = ref<NewWeighing[]>([])
  let busy = false
  let later: ReturnType<typeof setTimeout> | undefined

  const shelf = () => `oaken-scale-outbox-${id.value}`

  function remember() {
    if (waiting.value.length) localStorage.setItem(shelf(), JSON.stringify(waiting.value))
    else localStorage.removeItem(shelf())
  }

  async function send() {
    clearTimeout(later)
    if (busy) return
    busy = true
    try {
      for (let next = waiting.value[0]; next; next = waiting.value[0]) await deliver(next)
    } catch (error) {
      refused(error)
      later = setTimeout(() => void send(), RETRY_MS)
    } finally {
      busy = false
    }
  }

  async function deliver(reading: NewWeighing) {
    try {
      const path = { build_id: id.value }
      kept(
        await answered<Recorded>(
          api.POST('/api/v1/builds/{build_id}/weighings', { params: { path }, body: reading }),
        ),
      )
    } catch (error) {
      if (!(error instanceof RefusedError) || error.status >= 500) throw error
      refused(error)
    }
    waiting.value = waiting.value.filter((each) => each.id !== reading.id)
    remember()
  }

  /** Keep a reading here at once, and send it when `ready`; done when it was sent once. */
  function post(reading: NewWeighing, ready: Promise<void>): Promise<void> {
    waiting.value = [...waiting.value, reading]
    remember()
    return ready.then(send)
  }

  watch(
    id,
    () => {
      waiting.value = JSON.parse(localStorage.getItem(shelf()) ?? '[]')
      if (waiting.value.length) void send()
    },
    { immediate: true },
  )
  onBeforeUnmount(() => clearTimeout(later))

  return { waiting, post }
}
