import { onBeforeUnmount, ref, watch, type Ref } from 'vue'
import type { PanState } from '../api/client'
import { listenTo } from './stream'

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
  let stop: (() => void) | undefined

  function hear(event: string, data: string) {
    if (event === 'open' || event === 'error') connected.value = event === 'open'
    else if (event === 'changed') changed(JSON.parse(data).revision)
    else if (event === 'pan') pan.value = JSON.parse(data)
    else if (event === 'scale') reading.value = JSON.parse(data)
  }

  function listen() {
    stop?.()
    pan.value = undefined
    reading.value = undefined
    stop = listenTo(id.value, hear)
  }

  watch(id, listen, { immediate: true })
  onBeforeUnmount(() => stop?.())
  return { pan, reading, connected }
}
