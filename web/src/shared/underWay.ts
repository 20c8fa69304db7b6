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

window.addEventListener('beforeunload', (event) => {
  if (count > 0) event.preventDefault()
})
