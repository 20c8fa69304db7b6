type Known = { id: string }
type Plain = Record<string, unknown>

const isPlain = (value: unknown): value is Plain => typeof value === 'object' && value !== null
const areKnown = (values: unknown[]): values is Known[] =>
  values.every((each) => isPlain(each) && 'id' in each)
const alike = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other)

/** What a hand changed of `from` to make it `mine`, done to what stands there `now`: whatever it
 * left alone is as it is now. Things of a list are known by their ids, points of a line by their
 * place; a line with another number of points is taken whole. */
export function merged<T>(from: T, mine: T, now: T): T {
  if (alike(from, mine)) return now
  if (Array.isArray(from) && Array.isArray(mine) && Array.isArray(now))
    return ofLists(from, mine, now) as T
  if (!isPlain(from) || !isPlain(mine) || !isPlain(now)) return mine
  const keys = Object.keys({ ...now, ...mine })
  return Object.fromEntries(keys.map((key) => [key, merged(from[key], mine[key], now[key])])) as T
}

function ofLists(from: unknown[], mine: unknown[], now: unknown[]): unknown[] {
  if (areKnown(from) && areKnown(mine) && areKnown(now)) return ofKnown(from, mine, now)
  if (from.length !== mine.length || from.length !== now.length) return mine
  return mine.map((each, at) => merged(from[at], each, now[at]))
}

function ofKnown(from: Known[], mine: Known[], now: Known[]): Known[] {
  const was = new Map(from.map((each) => [each.id, each]))
  const is = new Map(mine.map((each) => [each.id, each]))
  const stays = now.filter((each) => is.has(each.id) || !was.has(each.id))
  const there = new Set(now.map((each) => each.id))
  return [
    ...stays.map((each) => {
      const [before, after] = [was.get(each.id), is.get(each.id)]
      return before && after ? merged(before, after, each) : each
    }),
    ...mine.filter((each) => !was.has(each.id) && !there.has(each.id)),
  ]
}
