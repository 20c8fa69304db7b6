/** Several in a row: "A, B and C". */
export function inARow(names: string[]): string {
  return names.length < 2 ? names.join() : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
}

const CAPITALISED = /(?<![\p{L}\p{N}])\p{Lu}\p{Ll}+(?![\p{L}\p{N}])/gu

/** A name inside a sentence: its words begin small; what is written otherwise, as ESC, 3S or LiPo,
 * stays as it is. */
export function inSentence(name: string): string {
  return name.replace(CAPITALISED, (word) => word.toLowerCase())
}
