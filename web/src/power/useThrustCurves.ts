import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { plainly, useUnits } from '../shared/units'
import { useDrive } from './useDrive'
import { usePoints } from './usePoints'

/** The plot's size, and where its axes stand. */
export const W = 460
export const H = 300
export const LEFT = 44
export const RIGHT = 12
const FOOT = 26
const TOP = 12

/** Thrust against throttle: each pack's curve, what was run, what is asked, on one scale. */
export function useThrustCurves() {
  const { drive, told, mine } = useDrive()
  const { build } = useBuild()
  const waiting = usePoints()
  const { units } = useUnits()

  /** Every pack that flies, once; the chosen loadout's own is drawn last, on top. */
  const curves = computed(() => {
    const seen = new Map((told.value?.loadouts ?? []).map((each) => [each.pack, each]))
    return [...seen.values()]
      .map((each) => ({ ...each, mine: each.pack === mine.value?.pack }))
      .sort((a, b) => Number(a.mine) - Number(b.mine))
  })
  /** What was run with this pack, and what waits to be kept as a run. */
  const points = computed(() => {
    const run = (drive.value?.runs ?? []).filter((each) => each.pack === mine.value?.pack)
    const fitted = (told.value?.fits ?? []).flatMap((fit) => {
      const throttle = run.find((each) => each.id === fit.run)?.points[fit.point]?.throttle
      if (throttle === undefined || fit.quantity !== 'thrust') return []
      const key = `${fit.run} ${fit.point}`
      return [{ key, throttle, thrust: fit.read, doubted: fit.t === null, waits: false }]
    })
    if (waiting.pack.value !== mine.value?.pack) return fitted
    const fresh = waiting.points.value.flatMap((point, at) =>
      point.thrust_gf === null
        ? []
        : [
            {
              key: `waits ${at}`,
              throttle: point.throttle,
              thrust: point.thrust_gf,
              doubted: false,
              waits: true,
            },
          ],
    )
    return [...fitted, ...fresh]
  })
  /** What the target of thrust-to-weight asks of this loadout. */
  const asked = computed(() => {
    const low = build.value?.targets.find((each) => each.kind === 'thrust_to_weight')?.low
    const gf = mine.value?.asked_gf
    return low && gf ? { ratio: low, gf } : null
  })

  const scale = computed(() => {
    const most = Math.max(
      1,
      asked.value?.gf ?? 0,
      ...points.value.map((each) => each.thrust),
      ...(mine.value?.fresh_curve ?? []).map((each) => each.thrust_gf),
      ...curves.value.flatMap((each) =>
        each.curve.map((point) => point.thrust_gf + 2 * point.thrust_sd_gf),
      ),
    )
    const base = units.value.thrust.base
    const y = scaleLinear([0, most / base], [H - FOOT, TOP]).nice(6)
    return {
      x: scaleLinear([0, 1], [LEFT, W - RIGHT]),
      y: (gf: number) => y(gf / base),
      ticks: y.ticks(6).map((value) => ({ at: value * base, text: plainly(value) })),
    }
  })
  const band = (curve: (typeof curves.value)[number]['curve']) => {
    const { x, y } = scale.value
    const up = curve.map((p) => `${x(p.throttle)},${y(p.thrust_gf + 2 * p.thrust_sd_gf)}`)
    const down = [...curve]
      .reverse()
      .map((p) => `${x(p.throttle)},${y(Math.max(p.thrust_gf - 2 * p.thrust_sd_gf, 0))}`)
    return [...up, ...down].join(' ')
  }
  const line = (curve: (typeof curves.value)[number]['curve']) =>
    curve.map((p) => `${scale.value.x(p.throttle)},${scale.value.y(p.thrust_gf)}`).join(' ')

  return { curves, points, asked, scale, band, line }
}

export type ThrustCurves = ReturnType<typeof useThrustCurves>
