import { scaleLinear } from 'd3-scale'
import { computed, type Ref } from 'vue'
import type { Body, Surface } from '../../api/client'
import { plainly, useUnits } from '../units'

const LEFT = 14
const RIGHT = 26
const TOP = 18
const GAP = 26
/** One line of the strip between the views, and its row of figures. */
export const ROW = 16

/**
 * One scale for all three views: from above (nose to the left, starboard up), from the side under
 * it, from the front beside it, so that every view is a projection of the others.
 */
export function useScale(
  surfaces: Ref<Surface[]>,
  size: { width: Ref<number>; height: Ref<number> },
  rows: Ref<number>,
  bodies?: Ref<Body[]>,
) {
  const { units } = useUnits()

  const mm = computed(() => {
    const sections = surfaces.value.flatMap((each) => each.sections)
    const frames = (bodies?.value ?? []).flatMap((each) =>
      each.frames.map((frame) => ({ ...frame, out: Math.abs(each.y_mm) + frame.width_mm / 2 })),
    )
    const xs = [
      0,
      ...sections.flatMap((s) => [s.x_le_mm, s.x_le_mm + s.chord_mm]),
      ...frames.map((frame) => frame.x_mm),
    ]
    const zs = [
      -30,
      40,
      ...sections.map((s) => s.z_mm),
      ...frames.flatMap((f) => [f.z_mm - f.height_mm / 2, f.z_mm + f.height_mm / 2]),
    ]
    return {
      from: Math.min(...xs),
      to: Math.max(...xs, 200),
      half: Math.max(
        100,
        ...sections.map((s) => Math.abs(s.y_mm)),
        ...frames.map((frame) => frame.out),
      ),
      low: Math.min(...zs),
      high: Math.max(...zs),
    }
  })

  const strip = computed(() => rows.value * ROW + 30)
  const perMm = computed(() => {
    const { from, to, half, low, high } = mm.value
    const across = (size.width.value - LEFT - RIGHT - GAP) / (to - from + high - low)
    const down = (size.height.value - 2 * TOP - strip.value - GAP) / (2 * half + (high - low))
    return Math.max(0.05, Math.min(across, down))
  })

  const x = (value: number) => LEFT + (value - mm.value.from) * perMm.value
  /** From above: starboard is up. */
  const y = (value: number) => TOP + (mm.value.half - value) * perMm.value
  const plan = computed(() => ({ top: y(mm.value.half), bottom: y(-mm.value.half) }))
  const sideTop = computed(() => plan.value.bottom + strip.value)
  /** From the side. */
  const z = (value: number) => sideTop.value + (mm.value.high - value) * perMm.value
  const frontLeft = computed(() => x(mm.value.to) + GAP)
  /** From the front, beside the view from above: height runs to the right. */
  const front = (value: number) => frontLeft.value + (value - mm.value.low) * perMm.value
  const height = computed(() => z(mm.value.low) + TOP)
  const width = computed(() => front(mm.value.high) + RIGHT)

  /** Round figures of the unit that is chosen, from the nose. */
  const ticks = computed(() => {
    const base = units.value.length.base
    const scale = scaleLinear().domain([mm.value.from / base, mm.value.to / base])
    const room = Math.max(2, Math.floor((x(mm.value.to) - x(mm.value.from)) / 52))
    return scale.ticks(room).map((each) => ({ at: x(each * base), text: plainly(each) }))
  })

  /** Where a point of the page lies on the plane [mm]. */
  const back = {
    x: (at: number) => (at - LEFT) / perMm.value + mm.value.from,
    y: (at: number) => mm.value.half - (at - TOP) / perMm.value,
    z: (at: number) => mm.value.high - (at - sideTop.value) / perMm.value,
  }

  return { mm, perMm, x, y, z, front, plan, sideTop, strip, height, width, ticks, back }
}

export type Scale = ReturnType<typeof useScale>
