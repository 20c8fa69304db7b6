/** A day as it is said: 7 Mar 2026; nothing where there is none. */
export const dayOf = (at: string | null | undefined) =>
  at
    ? new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
    : ''
