import { scaleLinear } from 'd3-scale'
import { computed, type Ref } from 'vue'
import { useUnits } from '../shared/units'

/** A loadout: where it balances and what it weighs, each with one sigma. */
export interface Point {
  id: string
  name: string
  x_mm: number
  x_sd_mm: number
  grams: number
  grams_sd: number
  here: boolean
}

/** The loadouts, the range [mm] and the limit [g]. */
export interface Balances {
  points: Point[]
  low: number | null
  high: number | null
  limit: number | null
}

const HEIGHT = 290
const TOP = 14
const BOTTOM = 52
const LEFT = 56
/** Names stand so far from each other [px]. */
const ROW = 20

/** Weight against balance at a width on the screen [px]. */
export function useMayFly(balances: Balances, width: Ref<number>) {
  const { units } = useUnits()

  /** On a narrow screen the loadouts are numbered, and named under the picture. */
  const narrow = computed(() => width.value < 560)
  const right = computed(() => (narrow.value ? 40 : 240))
  const inner = computed(() => ({ from: LEFT, to: Math.max(width.value - right.value, LEFT + 80) }))

  const spread = (values: number[], by: number): [number, number] => [
    Math.min(...values) - by,
    Math.max(...values) + by,
  ]
  const x = computed(() => {
    const base = units.value.length.base
    const all = balances.points.flatMap((each) => [
      each.x_mm - 2 * each.x_sd_mm,
      each.x_mm + 2 * each.x_sd_mm,
    ])
    const ends = [balances.low, balances.high].filter((each) => each !== null)
    return scaleLinear()
      .domain(spread([...all, ...ends], 4).map((each) => each / base))
      .range([inner.value.from, inner.value.to])
  })
  const y = computed(() => {
    const base = units.value.mass.base
    const all = balances.points.flatMap((each) => [
      each.grams - 2 * each.grams_sd,
      each.grams + 2 * each.grams_sd,
    ])
    const limit = balances.limit === null ? [] : [balances.limit]
    return scaleLinear()
      .domain(spread([...all, ...limit], 8).map((each) => each / base))
      .range([HEIGHT - BOTTOM, TOP])
  })
  const px = (mm: number) => x.value(mm / units.value.length.base)
  const py = (grams: number) => y.value(grams / units.value.mass.base)

  /** Names stand in a column of their own, in the order of their weights, each led to its mark. */
  const named = computed(() => {
    const sorted = [...balances.points].sort((one, other) => other.grams - one.grams)
    let last = -Infinity
    const placed = sorted.map((each, at) => {
      last = Math.max(py(each.grams) + 4, last + ROW, TOP + 8)
      return { ...each, number: at + 1, at: last }
    })
    const over = Math.max(0, last - (HEIGHT - BOTTOM))
    return placed.map((each) => ({ ...each, at: each.at - over }))
  })

  return { HEIGHT, TOP, BOTTOM, narrow, inner, x, y, px, py, named }
}
