/** Whether what was sent should be sent again later: the workshop could not take it now, or has to
 * let this device in first. */
export function isForLater(status: number): boolean {
  return status >= 500 || status === 401 || status === 429
}
