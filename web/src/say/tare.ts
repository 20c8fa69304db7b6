import type { PanState, Unfit } from '../api/client'
import { useUnits } from '../shared/units'

/** Why a scale does not weigh a load well, of one thing or several. */
export function unfit(why: Unfit, loads: number): string {
  if (why === 'near_its_end') return "near the end of this scale's range"
  if (loads > 1) return 'light for this scale, even together: a finer one would tell more'
  return 'too light for this scale: weigh several together'
}

type OddTare = NonNullable<PanState['note']>

/** What was odd when the pan was tared, in a sentence. */
export function useOddTare() {
  const { quantity } = useUnits()

  return function oddTare({ odd, grams }: OddTare): string {
    const amount = quantity(grams, 'mass')
    switch (odd) {
      case 'not_empty':
        return `The pan was not empty: ${amount} were tared away that no container weighs.`
      case 'nothing_yet':
        return 'The scale showed nothing when it was tared: is the thing on it yet?'
      case 'more':
      case 'less':
        return `It showed ${amount} ${odd} than what is on the list when it was tared. Look what lies on the pan.`
    }
  }
}
