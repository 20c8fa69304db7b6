import { computed } from 'vue'
import type { Flag } from '../shared/drawing/TheStrip.vue'
import { useBuild } from '../shared/useBuild'
import { useUnits } from '../shared/units'

/** The range, the neutral point and the CG where the plane hangs, named under it. */
export function useStationFlags() {
  const { assessment, loadout } = useBuild()
  const { number, units } = useUnits()

  return computed<Flag[]>(() => {
    const at = (mm: number) => number(mm, 'length')
    const { low_mm: low, high_mm: high, neutral } = assessment.value?.beam ?? {}
    const cg = loadout.value?.cg
    const found: Flag[] = []
    if (cg) {
      const text = `CG ${at(cg.x_mm)} ±${at(2 * cg.x_sd_mm)} ${units.value.length.name}`
      found.push({ key: 'cg', at_mm: cg.x_mm, text })
    }
    if (neutral)
      found.push({ key: 'np', at_mm: neutral.x_mm, text: `neutral point ${at(neutral.x_mm)}` })
    if (typeof low === 'number') {
      const text =
        typeof high === 'number' ? `range ${at(low)} to ${at(high)}` : `at least ${at(low)}`
      found.push({ key: 'low', at_mm: low, text })
    } else if (typeof high === 'number') {
      found.push({ key: 'high', at_mm: high, text: `at most ${at(high)}` })
    }
    return found
  })
}
