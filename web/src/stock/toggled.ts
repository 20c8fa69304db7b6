/** A list with one more in it, or without it where it was there. */
export function toggled<T>(list: readonly T[], one: T): T[] {
  return list.includes(one) ? list.filter((each) => each !== one) : [...list, one]
}
