import { computed, onBeforeUnmount, type Ref } from 'vue'
import type { NewWeighing, Recorded } from '../api/client'
import { listen, outbox } from './outbox'

/** The readings of one build that are on their way to its log, and what becomes of them. */
export function useOutbox(
  id: Ref<string>,
  kept: (recorded: Recorded) => void,
  refused: (error: unknown, reading: NewWeighing | null) => void,
) {
  const waiting = computed(() =>
    outbox.waiting.value.filter((each) => each.build === id.value).map((each) => each.reading),
  )
  const stop = listen({
    kept: (build, recorded) => {
      if (build === id.value) kept(recorded)
    },
    refused: (build, error, reading) => {
      if (build === id.value) refused(error, reading)
    },
  })
  onBeforeUnmount(stop)

  return {
    waiting,
    post: (reading: NewWeighing, ready: Promise<void>) => outbox.post(id.value, reading, ready),
  }
}
