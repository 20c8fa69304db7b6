/** A count with its noun: "1 reading", "7 readings". */
export function howMany(count: number, one: string, more = `${one}s`): string {
  return `${count} ${count === 1 ? one : more}`
}
