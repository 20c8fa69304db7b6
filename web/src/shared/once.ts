/** An act that is not begun a second time while it is under way: Enter that is held, or pressed
 * again before the workshop answered, keeps nothing twice. */
export function once<A extends unknown[]>(act: (...given: A) => unknown) {
  let isUnderWay = false
  return async (...given: A): Promise<void> => {
    if (isUnderWay) return
    isUnderWay = true
    try {
      await act(...given)
    } finally {
      isUnderWay = false
    }
  }
}
