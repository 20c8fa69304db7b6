/** A mass as it is drawn under the beam: its disc, how far it may slide, and its name. */
export interface Disc {
  id: string
  name: string
  mass: number
  /** Where it hangs. */
  x: number
  r: number
  reach: { low: number; high: number } | null
}

/** A disc where it hangs, its name where nothing crosses it, and the leader between them. */
export interface Hanging {
  y: number
  name: { x: number; y: number }
  leader: { from: number; to: number } | null
}

interface Box {
  left: number
  right: number
  top: number
  bottom: number
}

const LETTER = 6.3
/** Half the height of a name, and how far its baseline lies under its middle. */
const HALF = 7
const BASELINE = 4
const NEAREST = 30
const STEP = 8
/** So far below all others one may hang for the sake of its name. */
const ROOM = 60
/** A name farther off than this is nobody's. */
const LEADER = 130
const LOWEST = 5000

const meet = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom
const upright = (x: number, top: number, bottom: number): Box => ({
  left: x - 1.5,
  right: x + 1.5,
  top,
  bottom,
})

/**
 * Where each disc hangs below a beam, level or tipped: its lower edge is at `under` an x. The
 * heaviest hangs highest; no disc, no name, no string lies on a name, nor does the beam, or one of
 * the `lines` that run through all of it. One whose name finds no place between the strings of those
 * below hangs lower than they do.
 */
export function hangings(
  discs: Disc[],
  under: (x: number) => number,
  lines: number[],
  width: number,
): Map<string, Hanging> {
  const found = new Map<string, Hanging>()
  const names: Box[] = []
  const solid: Box[] = []
  const leaders: Box[] = []
  const throughout = (x: number) => upright(x, 0, LOWEST)
  const isBelow = ({ left, right, top }: Box) => top > Math.max(under(left), under(right)) + 2
  const strings: Box[] = lines.map(throughout)
  let waiting = [...discs].sort((a, b) => b.mass - a.mass)

  function hang(disc: Disc, y: number, isForced: boolean): boolean {
    const body = bodyOf(disc, y)
    const threads = threadsOf(disc, under(disc.x), y)
    if (!isBelow(body)) return false
    if ([...solid, ...leaders].some((each) => meet(each, body))) return false
    const isCrossed = [body, ...threads].some((each) => names.some((name) => meet(name, each)))
    if (isCrossed && !isForced) return false
    // What hangs lower has its string past here: no name stands in its way.
    const later = waiting.filter((each) => each !== disc).map((each) => throughout(each.x))
    const inTheWay = [...strings, ...leaders, ...later, ...threads, ...solid, body, ...names]
    const place =
      nameOf(disc, y, width, inTheWay, [...solid, ...names], isBelow) ??
      (isForced ? { box: boxAt(disc, disc.x, y + disc.r + 10), leader: null } : undefined)
    if (!place) return false
    const { box, leader } = place
    names.push(box)
    solid.push(body)
    strings.push(...threads)
    if (leader) leaders.push(levelled(leader, y))
    const name = { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 + BASELINE }
    found.set(disc.id, { y, name, leader })
    return true
  }

  // Where the beam rises, strings are as long as where it is level.
  const level = (under(0) + under(width)) / 2
  for (let isForced = false; waiting.length;) {
    const before = waiting.length
    for (const disc of waiting) {
      const top = Math.max(level, under(disc.x))
      const lowest = Math.max(top + ROOM, ...solid.map((each) => each.bottom)) + disc.r + ROOM
      for (let y = top + NEAREST + disc.r; y <= lowest; y += STEP) {
        if (!hang(disc, y, isForced)) continue
        waiting = waiting.filter((each) => each !== disc)
        break
      }
    }
    isForced = waiting.length === before
  }
  return found
}

/** The disc, the arrows of one that slides beside it, and the air around. */
function bodyOf({ x, r, reach }: Disc, y: number): Box {
  const half = r + (reach ? 14 : 3)
  return { left: x - half, right: x + half, top: y - r - 3, bottom: y + r + 3 }
}

/** The string that it hangs by, and the line along which it slides. */
function threadsOf({ x, r, reach }: Disc, top: number, y: number): Box[] {
  const string = upright(x, top, y - r)
  return reach ? [string, levelled({ from: reach.low, to: reach.high }, y)] : [string]
}

const levelled = ({ from, to }: { from: number; to: number }, y: number): Box => ({
  left: Math.min(from, to),
  right: Math.max(from, to),
  top: y - 2,
  bottom: y + 2,
})

function boxAt({ name }: Disc, x: number, middle: number): Box {
  const half = (name.length * LETTER) / 2
  return { left: x - half, right: x + half, top: middle - HALF, bottom: middle + HALF }
}

/**
 * The nearest place for a name that no line and no disc crosses: under its disc, else beside it
 * with a leader. Undefined where there is none at this height.
 */
function nameOf(
  disc: Disc,
  y: number,
  width: number,
  inTheWay: Box[],
  uncrossed: Box[],
  isBelow: (box: Box) => boolean,
) {
  const half = (disc.name.length * LETTER) / 2
  const isFree = (box: Box) =>
    box.left >= 2 &&
    box.right <= width - 2 &&
    isBelow(box) &&
    !inTheWay.some((each) => meet(each, box))
  for (const away of shifts(half)) {
    const box = boxAt(disc, disc.x + away, y + disc.r + 10)
    if (isFree(box)) return { box, leader: null }
  }
  const edge = disc.r + (disc.reach ? 14 : 3)
  for (const away of shifts(edge + half + LEADER)) {
    if (Math.abs(away) < edge + half + 3) continue
    const box = boxAt(disc, disc.x + away, y)
    if (!isFree(box)) continue
    const right = away > 0
    const leader = {
      from: disc.x + (right ? disc.r : -disc.r),
      to: right ? box.left - 2 : box.right + 2,
    }
    if (uncrossed.some((each) => meet(each, levelled(leader, y)))) continue
    return { box, leader: Math.abs(leader.to - leader.from) > 12 ? leader : null }
  }
  return undefined
}

/** 0, 5, -5, 10, -10 … */
function* shifts(most: number) {
  yield 0
  for (let by = 5; by <= most; by += 5) yield* [by, -by]
}
