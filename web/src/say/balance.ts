import type { Assessment, HangFlaw, Since } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { dayOf } from './dates'

type School = Assessment['beam']['schools'][number]
type ByHand = Assessment['beam']['loadouts'][number]['checked']
type Reason = Assessment['beam']['checks'][number]['reasons'][number]

const BECAME = { added: 'added', 'taken off': 'taken off', moved: 'moved' }

/** Why the angle of a plane that hung tells nothing. */
export const FLAWS: Record<HangFlaw, string> = {
  no_heights: 'no heights are known: give the parts theirs, or the angle tells nothing',
  tips_over: 'the point it hangs from is below its CG: it tips over; lift it from above',
}

/** What is told of checks, schools and throttle, in sentences. */
export function useBalanceWords() {
  const { nameOf, loadouts, assessment } = useBuild()
  const { quantity, exactLeft, units } = useUnits()

  /** What would explain a check that disagrees with the sum. */
  function reason({ kind, part, loadout, amount }: Reason): string {
    const name = nameOf(part ?? '')
    const by = amount ?? 0
    const grams = quantity(by, 'mass', exactLeft(by))
    switch (kind) {
      case 'loadout': {
        const other = loadouts.value.find((each) => each.id === loadout)?.name ?? loadout
        return `it is where ${other} balances: was that aboard?`
      }
      case 'from_nose':
        return `${name} was measured from the nose`
      case 'from_leading_edge':
        return `${name} was measured from the leading edge`
      case 'elsewhere':
        return `${name} sits ${quantity(Math.abs(by), 'length')} further ${by > 0 ? 'aft' : 'forward'} than written down`
      case 'unlisted_nose':
        return `${grams} at the nose that nobody listed: glue, paint, a repair`
      case 'unlisted_tail':
        return `${grams} at the tail that nobody listed: glue, paint, a repair`
    }
  }

  /** What full throttle does to the nose, by its moment [g m]: so many grams at the end of a metre,
   * or ounces at the end of a foot. */
  function throttle(gm: number | null | undefined): string {
    if (gm == null) return ''
    if (gm === 0) return 'next to no change of pitch with throttle'
    const { mass, length } = units.value
    const isMetric = length.base === 1
    const grams = isMetric ? Math.abs(gm) : (Math.abs(gm) * 1000) / 304.8
    const moment = fixed(grams / mass.base, mass.name === 'g' && isMetric ? 0 : 1)
    const at = isMetric ? 'a metre' : 'a foot'
    return `nose ${gm > 0 ? 'down' : 'up'} with throttle, ${moment} ${mass.name} at ${at} when full`
  }

  /** What was done to the plane since its balance was checked: in its builder's words, or by what
   * sits otherwise. */
  function done({ words, changed }: Since): string {
    const [first, ...others] = changed
    if (!first) return words
    const more = others.length ? `, and ${others.length} more` : ''
    return `${nameOf(first.part)} ${BECAME[first.kind]}${more}`
  }

  /** Whether a loadout's balance was checked by hand. */
  function checked({ how, loadout, since, at }: ByHand): string {
    switch (how) {
      case 'never':
        return 'not checked by hand yet'
      case 'another_loadout': {
        const other = loadouts.value.find((each) => each.id === loadout)?.name
        return `checked with ${other ?? 'everything aboard'} only`
      }
      case 'not_since':
        return `not checked since: ${since ? done(since) : ''}`
      case 'checked':
        return `checked by hand on ${dayOf(at)}`
    }
  }

  /** What a school's range rests on, or why it has none here. */
  function school({ basis, least, most, held_mm, above_mm, unsafe }: School): string {
    const between = `${fixed(100 * (least ?? 0), 0)} to ${fixed(100 * (most ?? 0), 0)} % of the mean chord`
    const warning = unsafe
      ? `; unsafe on so short a wing (aspect ratio ${fixed(assessment.value?.wing?.aspect_ratio_alone ?? 0, 1)})`
      : ''
    const tooFarAft = 'it would put the CG too far aft'
    switch (basis) {
      case 'tailed':
        return `${between}, for a wing with a tail${warning}`
      case 'flying_wing':
        return `${between}, for a flying wing${warning}`
      case 'ahead_of_neutral':
        return `${between} ahead of the neutral point`
      case 'as_planned':
        return 'as the plan has it'
      case 'held':
        return `${fixed(least ?? 0, 0)} to ${fixed(most ?? 0, 0)} degrees nose down when held at ${quantity(held_mm ?? 0, 'length')}, ${quantity(above_mm ?? 0, 'length')} above the CG`
      case 'no_rule_for_canard':
        return `there is no chord rule for a canard: ${tooFarAft}`
      case 'no_rule_for_tandem':
        return `there is no chord rule for a tandem: ${tooFarAft}`
      case 'nothing_lifts':
        return 'draw what lifts on the Plan'
      case 'no_mark':
        return "the plan's mark is not written down"
      case 'no_place_to_hold':
        return 'needs a mark to hold it at, and stations'
      case 'no_heights':
        return 'needs heights: of the wing on the drawing, and of the parts'
      case 'cg_above_wing':
        return 'the CG is above the wing: on the fingertips it tips over; lift it from above'
    }
  }

  return { reason, throttle, done, checked, school }
}
