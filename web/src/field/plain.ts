/** Between which numbers a figure lies, in the unit of its field. */
interface Range {
  gt?: number
  ge?: number
  le: number
}

/** A figure of one throw or flight as it is typed, in units of `base`; null for nothing typed.
 * Throws, in the words of the page, what is no number, and what the workshop would not keep. */
export function figureOf(text: string, what: string, { gt, ge, le }: Range, base = 1) {
  if (!text.trim()) return null
  const typed = plain(text)
  const value = typed === null ? null : +(typed * base).toFixed(3)
  if (value === null || (gt !== undefined && value <= gt))
    throw new Error(`${what}: a plain number above 0, like 9.5, or nothing`)
  if (value > le) {
    const most = Math.floor(le / base)
    throw new Error(`${what}: ${text} is too much for one; ${most} at most`)
  }
  if (ge !== undefined && value < ge)
    throw new Error(`${what}: ${text} is too little; ${ge} at least`)
  return value
}

/** A plain number as it is typed with a thumb, "9.5" or "9,5"; null for anything else. The field
 * works where nothing answers, so nothing else is understood here. */
export function plain(text: string): number | null {
  const typed = text.trim().replace(',', '.')
  return /^\d{1,5}(\.\d{0,3})?$|^\.\d{1,3}$/.test(typed) ? Number(typed) : null
}
