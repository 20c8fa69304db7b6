import { computed, type Ref } from 'vue'
import { useBuild } from '../shared/useBuild'
import { BODY_Y, type BeamScale } from './useBeamScale'

/** How far it tips at most, and at least where it is far out of its range [degrees]. */
const MOST = 9
const LEAST = 3
/** So far out of its range it has all but tipped [mm]. */
const FAR_MM = 28
/** Between the highest point and the picture's edge [px]. */
const CLEAR = 3

const sine = (deg: number) => Math.sin((deg * Math.PI) / 180)

/** How the beam tips about the edge of the range, and the room over it that keeps what rises in the
 * picture. */
export function useTilt(scale: BeamScale, edge: Ref<number | null>) {
  const { assessment, loadout } = useBuild()

  /** What stands highest at either end: where it is, and how far from the top. */
  const points = computed(() => {
    const outlines = assessment.value?.outlines ?? []
    const { from, to } = scale.axis.value
    const ends: [number, number][] = [from, to].map((at) => [scale.x(at), BODY_Y - 15])
    const drawn = outlines.flatMap((each) => each.side)
    return [...ends, ...drawn.map(([at, z]): [number, number] => [scale.x(at), scale.up(z)])]
  })
  const pivot = computed(() => scale.x(edge.value ?? 0))
  const room = computed(() =>
    Math.ceil(
      Math.max(
        0,
        ...points.value.map(([x, y]) => Math.abs(x - pivot.value) * sine(LEAST) + CLEAR - y),
      ),
    ),
  )

  /** By the moment about that edge for each gram aboard, as far as the end that rises stays in. */
  const tip = computed(() => {
    const cg = loadout.value?.cg
    const off = edge.value === null || !cg ? 0 : cg.x_mm - edge.value
    const rising = points.value.filter(([x]) => (x - pivot.value) * off < 0)
    const most = rising.map(([x, y]) => (room.value + y - CLEAR) / Math.abs(x - pivot.value))
    const deg = Math.min(
      MOST,
      ...most.map((each) => (Math.asin(Math.min(each, 1)) * 180) / Math.PI),
    )
    return { x: pivot.value, deg: deg * Math.tanh(off / FAR_MM) }
  })

  return { tip, room }
}
