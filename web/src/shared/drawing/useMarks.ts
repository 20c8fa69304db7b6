import { computed, type Ref } from 'vue'
import type { Assessment, Loadout } from '../../api/client'
import { useUnits } from '../units'
import type { Flag } from './TheStrip.vue'

/** What is told of the balance on the drawing: the range, the neutral point and the mean chord, and
 * the words for each. What nobody has drawn yet claims nothing. */
export function useMarks(
  assessment: Ref<Assessment | undefined>,
  loadout: Ref<Loadout | undefined>,
) {
  const { number } = useUnits()
  const claimed = computed(() => {
    const wing = assessment.value?.outlines.find((each) => each.role === 'wing')
    return wing !== undefined && !wing.untouched
  })
  const beam = computed(() => (claimed.value ? assessment.value?.beam : undefined))
  const mac = computed(() => (claimed.value ? assessment.value?.wing : undefined))
  const neutral = computed(() => beam.value?.neutral?.x_mm)
  const range = computed(() => {
    const { low_mm: low, high_mm: high } = beam.value ?? {}
    return typeof low === 'number' && typeof high === 'number' ? { low, high } : undefined
  })

  const flags = computed<Flag[]>(() => {
    const found: Flag[] = []
    const add = (key: string, at: number | null | undefined, text: (mm: string) => string) => {
      if (typeof at === 'number') found.push({ key, at_mm: at, text: text(number(at, 'length')) })
    }
    const spot = loadout.value?.cg
    const band = number(beam.value?.band_mm ?? 0, 'length')
    add('cg', spot?.x_mm, (mm) => `CG ${mm} ±${number(2 * (spot?.x_sd_mm ?? 0), 'length')}`)
    add('np', neutral.value, (mm) => `neutral point ${mm} ±${band}`)
    const both = range.value
    if (both) add('low', both.low, (mm) => `range ${mm} to ${number(both.high, 'length')}`)
    else {
      add('low', beam.value?.low_mm, (mm) => `at least ${mm}`)
      add('high', beam.value?.high_mm, (mm) => `at most ${mm}`)
    }
    return found
  })
  return { flags, range, neutral, mac }
}
