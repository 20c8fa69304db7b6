let count = 0

/** A figure is being read or a change is on its way: until it is answered, leaving the page asks.
 * Gives what ends it; ended twice, it is ended once. */
export function underWay(): () => void {
  count++
  let isEnded = false
  return () => {
    if (!isEnded) count--
    isEnded = true
  }
}

export function whileUnderWay<T>(work: Promise<T>): Promise<T> {
  return work.finally(underWay())
}

window.addEventListener('beforeunload', (event) => {
  if (count > 0) event.preventDefault()
})
