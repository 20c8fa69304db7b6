import type { Assessment } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

type Reason = Assessment['beam']['checks'][number]['reasons'][number]

/** What is told of checks and of throttle, in sentences. */
export function useBalanceWords() {
  const { nameOf, loadouts } = useBuild()
  const { quantity, units } = useUnits()

  /** What would explain a check that disagrees with the sum. */
  function reason({ kind, part, loadout, amount }: Reason): string {
    const name = nameOf(part ?? '')
    const by = amount ?? 0
    const grams = quantity(by, 'mass', units.value.mass.name === 'g' ? 0 : undefined)
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

  return { reason, throttle }
}
