/** What a build's stream tells: its events by name, and whether it is connected (`open`, `error`). */
type Hear = (event: string, data: string) => void

const EVENTS = ['changed', 'pan', 'scale', 'stand']
/** What one who comes later is told at once. */
const LASTING = ['open', 'error', 'changed', 'pan']

/**
 * Listen to what happens to a build. However many pages of a browser are open, one of them holds the
 * stream and tells the others: browsers allow a handful of connections, and fifty pages may be open.
 * When the page that holds it is closed, another one takes over.
 */
export function listenTo(build: string, hear: Hear): () => void {
  const name = `oaken-scale-live-${build}`
  const stop = new AbortController()
  if (!('locks' in navigator) || !('BroadcastChannel' in window)) {
    stop.signal.addEventListener('abort', streamOf(build, hear))
    return () => stop.abort()
  }
  const others = new BroadcastChannel(name)
  const last = new Map<string, string>()
  let holds = false
  others.addEventListener('message', ({ data: told }) => {
    if (stop.signal.aborted) return
    if (told.ask) {
      if (holds) for (const [event, data] of last) others.postMessage({ event, data })
    } else if (!holds) hear(told.event, told.data)
  })
  others.postMessage({ ask: true })

  const hold = () =>
    new Promise<void>((release) => {
      if (stop.signal.aborted) return release()
      holds = true
      const close = streamOf(build, (event, data) => {
        if (event === 'open' || event === 'error') last.delete(event === 'open' ? 'error' : 'open')
        if (LASTING.includes(event)) last.set(event, data)
        others.postMessage({ event, data })
        hear(event, data)
      })
      stop.signal.addEventListener('abort', () => {
        close()
        release()
      })
    })
  navigator.locks.request(name, { signal: stop.signal }, hold).catch(() => undefined)
  return () => {
    stop.abort()
    others.close()
  }
}

function streamOf(build: string, hear: Hear): () => void {
  const source = new EventSource(`/api/v1/builds/${encodeURIComponent(build)}/events`)
  source.addEventListener('open', () => hear('open', ''))
  source.addEventListener('error', () => hear('error', ''))
  for (const event of EVENTS)
    source.addEventListener(event, (told) => hear(event, (told as MessageEvent<string>).data))
  return () => source.close()
}
