/** One line of a list to choose from. */
export interface Choice<T = string> {
  value: T
  title: string
}

/** What stands above the lines that belong together, and is not chosen. */
export interface Heading {
  type: 'subheader'
  title: string
}

/** What has a name, to be chosen by its id; `none` stands first, for none of them. */
export function named(
  things: readonly { id: string; name: string }[] | null | undefined,
  none?: string,
): Choice[] {
  const all = (things ?? []).map(({ id, name }) => ({ value: id, title: name }))
  return none === undefined ? all : [{ value: '', title: none }, ...all]
}

/** What each of these is called: its title, or its own. */
export function titled<T extends string>(
  titles: Readonly<Record<T, string | { readonly title: string }>>,
): Choice<T>[] {
  return (Object.entries(titles) as [T, string | { title: string }][]).map(([value, title]) => ({
    value,
    title: typeof title === 'string' ? title : title.title,
  }))
}

/** Words that say themselves what they are. */
export function asSaid<T extends string | number>(words: readonly T[]): Choice<T>[] {
  return words.map((word) => ({ value: word, title: String(word) }))
}

/** What is kept by a name of its own and shown by its title. */
export function byName<T extends string>(
  entries: readonly { readonly name: T; readonly title: string }[],
): Choice<T>[] {
  return entries.map(({ name, title }) => ({ value: name, title }))
}
