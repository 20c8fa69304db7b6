import { computed, type Ref } from 'vue'
import { useBuild } from '../shared/useBuild'
import { hangings } from './hanging'
import { UNDER, type BeamScale } from './useBeamScale'
import type { Hung } from './useHung'

const radius = (mass: number) => Math.max(2.2 * Math.sqrt(Math.max(mass, 0)), 7)

/** Where each mass hangs, and where its name stands, clear of all that hangs beside it. */
export function useHangings(
  hung: Ref<Hung[]>,
  scale: BeamScale,
  tip: Ref<{ x: number; deg: number }>,
) {
  const { assessment } = useBuild()

  const placed = computed(() => {
    const turn = Math.tan((tip.value.deg * Math.PI) / 180)
    const under = (x: number) => UNDER + (x - tip.value.x) * turn
    const neutral = assessment.value?.beam.neutral
    const discs = hung.value.map((each) => {
      const x = scale.x(each.x)
      return {
        mass: each,
        x,
        r: radius(each.mass),
        top: under(x),
        reach: each.slide ? { low: scale.x(each.slide.low), high: scale.x(each.slide.high) } : null,
      }
    })
    const found = hangings(
      discs.map(({ mass: { id, name, mass }, x, r, reach }) => ({ id, name, mass, x, r, reach })),
      under,
      neutral ? [scale.x(neutral.x_mm)] : [],
      scale.width.value,
    )
    return discs.flatMap((each) => {
      const hanging = found.get(each.mass.id)
      return hanging ? [{ ...each, hanging }] : []
    })
  })

  /** How far down it all reaches. */
  const depth = computed(() =>
    Math.max(260, ...placed.value.map(({ hanging, r }) => hanging.y + r + 24)),
  )
  return { placed, depth }
}
