/** Fields as they are sent. Once that is kept they begin anew, but for what was typed into them while
 * it was on its way: that is of the next one. */
export function sent<T extends object>(fields: T): (anew: Partial<T>) => void {
  const was = { ...fields }
  return (anew) => {
    for (const key of Object.keys(anew) as (keyof T)[])
      if (fields[key] === was[key]) fields[key] = anew[key] as T[typeof key]
  }
}
