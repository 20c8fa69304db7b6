import { onBeforeUnmount, ref, watch, type Ref } from 'vue'
import type { PanState } from '../api/client'

export interface Reading {
  reading_g: number
  state: 'steady' | 'moving' | 'over' | 'gone'
  /** The turn of the pan in which it was read. */
  turn: number
  /** It shows more than nothing on a pan that should be empty. */
  astray: boolean
}

/** What happens to a build elsewhere: its revision, its pan, and a simulated scale's display. */
export function useLive(id: Ref<string>, changed: (revision: number) => void) {
  const pan = ref<PanState>()
  const reading = ref<Reading>()
  const connected = ref(true)
  let source: EventSource | undefined

  function listen() {
    source?.close()
    pan.value = undefined
    reading.value = undefined
    const opened = new EventSource(`/api/v1/builds/${encodeURIComponent(id.value)}/events`)
    opened.addEventListener('open', () => (connected.value = true))
    opened.addEventListener('error', () => (connected.value = false))
    opened.addEventListener('changed', (event) => changed(JSON.parse(event.data).revision))
    opened.addEventListener('pan', (event) => (pan.value = JSON.parse(event.data)))
    opened.addEventListener('scale', (event) => (reading.value = JSON.parse(event.data)))
    source = opened
  }

  watch(id, listen, { immediate: true })
  onBeforeUnmount(() => source?.close())
  return { pan, reading, connected }
}
