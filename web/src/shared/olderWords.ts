/** What has waited in this browser since an older version, in the words of today: it called a part
 * an item. Applied to what is in today's words already, it changes nothing. */
export function inWordsOfToday<T>(waited: T): T {
  if (Array.isArray(waited)) return waited.map(inWordsOfToday) as T
  if (waited === null || typeof waited !== 'object') return waited
  const fields = Object.entries(waited).map(([name, value]) => [
    name.replace(/^item(s?)$/, 'part$1'),
    inWordsOfToday(value),
  ])
  return Object.fromEntries(fields) as T
}

/** The address of a change, likewise. */
export const addressOfToday = (url: string) =>
  url.replace(/(\/builds\/[^/]+)\/item(s|s-together)(?=[/?]|$)/, '$1/part$2')
