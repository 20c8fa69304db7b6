/** A plain number as it is typed with a thumb, "9.5" or "9,5"; null for anything else. The field
 * works where nothing answers, so nothing else is understood here. */
export function plain(text: string): number | null {
  const typed = text.trim().replace(',', '.')
  return /^\d{1,5}(\.\d{0,3})?$|^\.\d{1,3}$/.test(typed) ? Number(typed) : null
}
