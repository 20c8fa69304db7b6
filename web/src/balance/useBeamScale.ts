import { scaleLinear } from 'd3-scale'
import { computed, type Ref } from 'vue'
import { useBuild } from '../shared/useBuild'
import { plainly, useUnits } from '../shared/units'
import type { Hung } from './useHung'

/** Where the beam lies, and the middle of the fuselage on it [px from the top]. */
export const BEAM_Y = 118
export const BODY_Y = BEAM_Y - 30
/** Where the strings begin, and the fields under the beam. */
export const UNDER = BEAM_Y + 8
const ASIDE = 45

/** One station axis for the beam and all that stands and hangs on it, in the pixels there are. */
export function useBeamScale(across: Ref<number>, hung: Ref<Hung[]>) {
  const { assessment } = useBuild()
  const { units } = useUnits()

  /** Letters keep their size on any screen. */
  const width = computed(() => Math.max(300, Math.round(across.value)))
  const outlines = computed(() => assessment.value?.outlines ?? [])
  const axis = computed(() => {
    const xs = [
      0,
      ...outlines.value.flatMap((each) => each.corners.map(([x]) => x)),
      ...hung.value.flatMap((each) => [each.x, ...(each.slide ? [each.slide.low] : [])]),
    ]
    const from = Math.min(...xs)
    const to = Math.max(...xs, from + 200)
    return { from, to, scale: (width.value - 2 * ASIDE) / (to - from) }
  })

  const x = (mm: number) => ASIDE + (mm - axis.value.from) * axis.value.scale
  const long = (mm: number) => mm * axis.value.scale
  /** Heights are drawn at half size, from the fuselage's middle up. */
  const up = (mm: number) => BODY_Y - long(mm) * 0.5
  /** The station [mm] at so many pixels from the left. */
  const back = (px: number) => (px - ASIDE) / axis.value.scale + axis.value.from

  /** Round figures of the unit that is chosen. */
  const ticks = computed(() => {
    const base = units.value.length.base
    const { from, to } = axis.value
    const many = Math.max(3, Math.floor(width.value / 85))
    return scaleLinear([from / base, to / base], [0, 1])
      .ticks(many)
      .map((each) => ({ at: x(each * base), text: plainly(each) }))
  })

  return { width, axis, x, long, up, back, ticks }
}

export type BeamScale = ReturnType<typeof useBeamScale>
