import { scaleLinear } from 'd3-scale'
import { computed, type Ref } from 'vue'
import type { MapPoint, SpanChordMap } from '../api/client'
import { useUnits } from '../shared/units'

/** Room about the map for its names [px]. */
const EDGE = { left: 52, right: 112, top: 34, bottom: 46 }
/** Names at the side stand so far from each other [px], and letters so far from a line. */
const NAME_PX = 15
const CLEAR_PX = 9
/** What keeps a point from its targets, by the letter that stands for it. */
const LETTER = {
  auw: 'W',
  wing_loading: 'L',
  thrust_to_weight: 'T',
  power_loading: 'P',
  balance: 'B',
  minutes: 'M',
} as const

/** Half of what is between two points of an axis. */
const half = (all: number[]) => ((all.at(-1) ?? 0) - (all[0] ?? 0)) / (all.length - 1 || 1) / 2
const inside = (at: number, [low = 0, top = 0]: number[]) => at > low && at < top

function letter(point: MapPoint): string {
  const worst = point.chances
    .filter((each) => each.chance !== null && each.chance < 0.5)
    .sort((a, b) => (a.chance ?? 0) - (b.chance ?? 0))[0]
  return worst ? LETTER[worst.kind] : ''
}

/** Span against chord at a width on the screen [px]: a unit of the drawing is one of the screen, so
 * that letters are as large as they are meant. */
export function useMapScale(map: Ref<SpanChordMap>, width: Ref<number>) {
  const { units } = useUnits()
  const across = computed(() => Math.max(width.value, 300))
  const down = computed(() => Math.min(500, Math.max(330, across.value * 0.66)))

  const axis = (all: number[], range: [number, number]) =>
    scaleLinear([(all[0] ?? 0) - half(all), (all.at(-1) ?? 1) + half(all)], range)
  const x = computed(() => axis(map.value.spans_mm, [EDGE.left, across.value - EDGE.right]))
  const y = computed(() => axis(map.value.chords_mm, [down.value - EDGE.bottom, EDGE.top]))
  const cell = computed(() => ({
    wide: x.value(2 * half(map.value.spans_mm)) - x.value(0),
    high: y.value(0) - y.value(2 * half(map.value.chords_mm)),
  }))

  /** No letter stands where a line runs. */
  function isCrossed({ span_mm, chord_mm }: MapPoint): boolean {
    return map.value.lines.some((line) =>
      line.is_span
        ? Math.abs(x.value(line.at_mm) - x.value(span_mm)) < CLEAR_PX
        : Math.abs(y.value(line.at_mm) - y.value(chord_mm)) < CLEAR_PX,
    )
  }
  const cells = computed(() => {
    const { wide, high } = cell.value
    const has = wide > 15 && high > 13
    return map.value.points.map((point) => ({
      point,
      x: x.value(point.span_mm) - wide / 2,
      y: y.value(point.chord_mm) - high / 2,
      step: point.likely,
      letter: has && !isCrossed(point) ? letter(point) : '',
    }))
  })

  const spans = computed(() =>
    map.value.lines.filter((line) => line.is_span && inside(line.at_mm, x.value.domain())),
  )
  /** The names of chords at the side, none on another. */
  const chords = computed(() => {
    const told = map.value.lines
      .filter((line) => !line.is_span && inside(line.at_mm, y.value.domain()))
      .map((line) => ({ ...line, y: y.value(line.at_mm), label: y.value(line.at_mm) + 4 }))
      .sort((a, b) => a.y - b.y)
    told.forEach((each, k) => {
      const before = told[k - 1]
      if (before && each.label - before.label < NAME_PX) each.label = before.label + NAME_PX
    })
    return told
  })

  /** Ticks that are round in the unit that was chosen. */
  function ticks(of: 'span' | 'chord', many: number): number[] {
    const base = units.value.length.base
    const [low = 0, top = 1] = (of === 'span' ? x : y).value.domain()
    return scaleLinear([low / base, top / base], [0, 1])
      .ticks(many)
      .map((each) => each * base)
  }

  return { EDGE, across, down, x, y, cell, cells, spans, chords, ticks }
}
