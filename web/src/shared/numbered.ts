/** An id and a name for one more of a list, by the first number that is free. */
export function numbered(stem: string, name: string, there: readonly { id: string }[]) {
  let number = there.length + 1
  while (there.some((each) => each.id === `${stem}-${number}`)) number++
  return { id: `${stem}-${number}`, name: `${name} ${number}` }
}
