import type { Assessment } from '../api/client'
import { fixed, plainly } from '../shared/units'
import { useBuild } from '../shared/useBuild'

type Odd = Assessment['proportions']['odd'][number]
type Ratio = Exclude<Odd['kind'], 'tail_in_front' | 'run_through'>

/** The ratios that a rule of thumb looks at, and to how many decimals. */
const RATIOS: Record<Ratio, [name: string, digits: number]> = {
  aspect_ratio: ['aspect ratio of the wing', 1],
  tail_volume: ['tail volume', 2],
  fin_volume: ['fin volume', 3],
  thickness: ['thickness over chord', 2],
  tail_span: ['tail span over wing span', 2],
  fin_height: ['fin height over tail span', 2],
}

/** What a rule of thumb would say of a plan, in sentences. */
export function useProportionWords() {
  const { build } = useBuild()

  return function odd({ kind, value, low, high, surfaces }: Odd): string {
    const [one = '', other = ''] = surfaces.map(
      (id) => build.value?.surfaces.find((each) => each.id === id)?.name ?? id,
    )
    if (kind === 'tail_in_front')
      return `${one} is in front of the wing: it lifts as a canard, and counts as one`
    if (kind === 'run_through') return `${one} and ${other} run through each other`
    const [name, digits] = RATIOS[kind]
    const way = (value ?? 0) < (low ?? 0) ? 'below' : 'above'
    return `${name} ${fixed(value ?? 0, digits)} is ${way} the usual ${plainly(low ?? 0, 3)} to ${plainly(high ?? 0, 3)}`
  }
}
