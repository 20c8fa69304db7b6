import type { Lot } from '../api/client'
import { useUnits } from './units'

const INCH_DM = 0.254
const FOOT_M = 0.3048

/** A piece of a lot as it is cut to be weighed: how much that is [dm2, m, pieces], how it is typed,
 * and what it is called. */
interface Sample {
  amount: number
  typed: string
  called: string
}

const METRIC: Record<Lot['unit'], Sample> = {
  dm2: { amount: 1, typed: '100 x 100', called: 'a 100 mm square' },
  m: { amount: 1, typed: '1', called: 'one metre' },
  piece: { amount: 1, typed: '1', called: 'one piece' },
}
const INCHES: Record<Lot['unit'], Sample> = {
  ...METRIC,
  dm2: { amount: (4 * INCH_DM) ** 2, typed: '4 x 4 in', called: 'a 4 in square' },
  m: { amount: 3 * FOOT_M, typed: '3', called: 'three feet' },
}

/** The piece that is usually weighed, of a size that the ruler at hand shows. */
export function useUsualSample() {
  const { units } = useUnits()
  return (unit: Lot['unit']): Sample => (units.value.length.base === 1 ? METRIC : INCHES)[unit]
}
