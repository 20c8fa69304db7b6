import { inSentence } from '../say/names'
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useTrial } from './useTrial'

/** What hangs on the beam, as it is drawn. */
export interface Hung {
  id: string
  name: string
  /** Where it hangs [mm from the nose], and its mass [g]. */
  x: number
  mass: number
  /** Where it may slide to [mm from the nose]; null for what stays. */
  slide: { low: number; high: number } | null
  parts: string[]
}

/** What hangs on the beam in the loadout shown; what is dragged hangs where the hand has it. */
export function useHung() {
  const { balanced, nameOf } = useBuild()
  const { moved } = useTrial()

  return computed<Hung[]>(() =>
    (balanced.value?.hung ?? []).map((each) => {
      const group = each.assembly || 'loose parts'
      return {
        id: each.part ?? `rest-${group}`,
        name: inSentence(each.part === null ? group : nameOf(each.part)),
        x: moved.value.get(each.part ?? '') ?? each.x_mm,
        mass: each.mass_g,
        slide:
          each.low_mm === null || each.high_mm === null
            ? null
            : { low: each.low_mm, high: each.high_mm },
        parts: each.parts,
      }
    }),
  )
}
