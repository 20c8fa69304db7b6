/** Figures that were left in their fields, while the workshop reads them: each is kept in the order
 * it was left in, and what is pressed after it comes after it. */
let left: Promise<unknown> = Promise.resolve()
let count = 0
/** So long a press waits for a figure where the workshop is slow to answer. */
const PATIENCE_MS = 5000

/** Keep a figure once it is read: after those left before it, before what is pressed next. */
export function keptInTurn<T>(reading: Promise<T>, keep: (read: T) => unknown): void {
  count++
  left = Promise.all([reading, left])
    .then(([read]) => keep(read))
    .catch((error: unknown) => console.error(error))
    .finally(() => count--)
}

/** Do something once all figures are kept that were left before it; at once where none is read. */
export function afterFigures<T>(act: () => T): T | Promise<T> {
  return count ? Promise.race([left, patience()]).then(act) : act()
}

const patience = () => new Promise((ended) => setTimeout(ended, PATIENCE_MS))

/** Pressed once the figures were kept: it goes on as it was pressed. */
const goesOn = new WeakSet<Event>()

/** A press on the page waits for the figure that was left by it. A link need not: what is left with
 * the place is kept all the same. */
function hold(event: MouseEvent): void {
  const at = event.target
  if (!count || goesOn.has(event) || !(at instanceof Element) || at.closest('a[href]')) return
  event.preventDefault()
  event.stopImmediatePropagation()
  void afterFigures(() => {
    if (!at.isConnected) return
    const again = new MouseEvent('click', event)
    goesOn.add(again)
    at.dispatchEvent(again)
  })
}

window.addEventListener('click', hold, { capture: true })
