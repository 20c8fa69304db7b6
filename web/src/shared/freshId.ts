/** An id that nothing else has: what is sent twice under it is kept once. */
export function freshId(): string {
  return crypto.randomUUID?.() ?? `r-${Date.now()}-${Math.random().toString(36).slice(2)}`
}
