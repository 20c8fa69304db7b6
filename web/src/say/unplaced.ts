import type { Assessment } from '../api/client'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { inARow, inSentence } from './names'

type Unplaced = NonNullable<Assessment['beam']['loadouts'][number]['unplaced']>

/** Parts aboard that nobody said the place of, in sentences. */
export function useUnplacedWords() {
  const { build, nameOf } = useBuild()
  const { quantity, number } = useUnits()

  /** Whether they are several: parts, or pieces of one. */
  function areMany({ parts }: Unplaced): boolean {
    const one = build.value?.parts.find((each) => each.id === parts[0])
    return parts.length > 1 || (one?.pieces ?? 1) > 1
  }

  /** Who has none: "clay has no place yet". */
  function short(told: Unplaced): string {
    const names = told.parts.map((part) => inSentence(nameOf(part)))
    if (names.length > 2) return `${names.length} parts have no place yet`
    return `${inARow(names)} ${areMany(told) ? 'have' : 'has'} no place yet`
  }

  /** What they weigh, how they count meanwhile, and where they would bring the CG into its range. */
  function unplaced(told: Unplaced): string {
    const who = short(told)
    const grams = `${quantity(told.mass_g, 'mass')}${told.parts.length > 1 ? ' together' : ''}`
    const words = `${who.slice(0, 1).toUpperCase()}${who.slice(1)}: ${grams}, counted where the rest balances.`
    if (told.from_mm == null || told.to_mm == null) return words
    const [from, to] = [number(told.from_mm, 'length'), quantity(told.to_mm, 'length')]
    const there = to.startsWith(`${from} `) ? `At ${to}` : `Between ${from} and ${to}`
    return `${words} ${there} from the nose ${areMany(told) ? 'they bring' : 'it brings'} the plane into its range.`
  }

  return { short, unplaced }
}
