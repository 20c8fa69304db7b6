import type { Assessment } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { useUsualSample } from '../shared/usualSample'
import { METRICS } from './metrics'
import { inARow, inSentence } from './names'

type Suggestion = Assessment['weigh_next'][number]

/** What is worth weighing next, and why, in sentences. */
export function useWeighNext() {
  const { build, nameOf, loadout: shown } = useBuild()
  const { quantity } = useUnits()
  const usual = useUsualSample()

  /** A piece of a lot to weigh: a 100 mm square, a metre. */
  function sample(id: string): string {
    const lot = build.value?.lots.find((each) => each.id === id)
    return lot ? `${usual(lot.unit).called} of ${lot.name}` : id
  }

  /** What to put on. */
  function what({ part, lot, scale, run, together, called, parts }: Suggestion): string {
    if (part) return nameOf(part)
    if (lot) return sample(lot)
    if (scale)
      return `a known weight on ${build.value?.scales.find((each) => each.id === scale)?.name ?? scale}`
    if (run)
      return `a run on the stand with ${build.value?.power?.packs.find((each) => each.id === run)?.name ?? run}`
    if (together === 'whole_plane') return called ? `the whole plane, ${called}` : 'the whole plane'
    if (together === 'light_ones') {
      const names = parts.map((id) => inSentence(nameOf(id)))
      if (names.length > 3) return `${names.length} light parts together`
      return `${inARow(names)} together`
    }
    return together === 'as_it_is' ? `${called}, as it is now` : `${called}, put together`
  }

  function because({ because: why, lots, made_of_it: parts }: Suggestion): string {
    const named = lots.map((id) => build.value?.lots.find((each) => each.id === id)?.name ?? id)
    switch (why) {
      case 'guess':
        return 'it is only a guess so far'
      case 'listing':
        return 'it is only a listing so far'
      case 'tells_of':
        return `it also tells about ${inARow(named) || 'itself'}`
      case 'parts_of':
        return `${parts === 1 ? 'one part is' : `${parts} parts are`} made of it`
      case 'joined':
        return 'what joins it is weighed with it'
      case 'too_light':
        return 'one by one they are too light for this scale'
      case 'never_run':
        return 'nothing was run yet'
      case 'not_with_this_pack':
        return 'it was never run with this pack'
      case 'scale_unchecked':
        return ''
    }
  }

  /** Of which loadout, where it is not the one that is looked at. */
  function elsewhere({ loadout }: Suggestion): string {
    const other = build.value?.loadouts.find((each) => each.id === loadout)
    return other && other.id !== shown.value?.id ? ` of “${other.name}”` : ''
  }

  function why(next: Suggestion): string {
    const metric = METRICS[next.goal].title.toLowerCase()
    if (next.because === 'scale_unchecked')
      return `What is in hand for ${metric} is less than a scale may be off that no known weight was on: 100 ml of water weigh ${quantity(100, 'mass')}.`
    const share = next.share < 0.005 ? 'under 1' : fixed(100 * next.share, 0)
    return `Takes away ${share} % of what is still unsure about ${metric}${elsewhere(next)}: ${because(next)}.`
  }

  return { what, why }
}
