/** A mass as it is drawn under the beam: its disc, and its name below. */
export interface Disc {
  id: string
  name: string
  mass: number
  x: number
  r: number
}

interface Box {
  x: number
  half: number
  from: number
  to: number
}

const LETTER = 3.1
const NEAREST = 38

/** The disc and the name, with the air that they want around them. */
function boxes({ x, r, name }: Disc, y: number): Box[] {
  return [
    { x, half: r + 3, from: y - r, to: y + r },
    { x, half: name.length * LETTER + 3, from: y + r + 1, to: y + r + 16 },
  ]
}

const meet = (a: Box, b: Box) =>
  Math.abs(a.x - b.x) < a.half + b.half && a.from < b.to && b.from < a.to

/**
 * How far below the beam each disc hangs, the heaviest highest: low enough that no disc and no name
 * lies on another's.
 */
export function drops(discs: Disc[]): Map<string, number> {
  const hung: { disc: Disc; y: number }[] = []
  for (const disc of [...discs].sort((a, b) => b.mass - a.mass)) {
    let y = NEAREST + disc.r
    const inTheWay = () =>
      hung.find((other) =>
        boxes(other.disc, other.y).some((a) => boxes(disc, y).some((b) => meet(a, b))),
      )
    for (let hit = inTheWay(); hit; hit = inTheWay()) y = hit.y + hit.disc.r + disc.r + 17
    hung.push({ disc, y })
  }
  return new Map(hung.map(({ disc, y }) => [disc.id, y]))
}
