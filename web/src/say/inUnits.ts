import { computed } from 'vue'
import { decimal, fixed, useUnits, type Shown } from '../shared/units'
import { useBuild } from '../shared/useBuild'

/** What the workshop's own sentences measure in: base units, each as they write it. */
const WRITTEN: Record<string, Shown> = {
  g: 'mass',
  gf: 'thrust',
  mm: 'length',
  dm2: 'area',
  'dm²': 'area',
  'g/dm2': 'loading',
  'g/dm²': 'loading',
}
const FIGURE = /(\d+(?:\.\d+)?)(?: to (\d+(?:\.\d+)?))? (g\/dm[2²]|dm[2²]|gf|mm|g)(?![\w/])/g

/** Sentences of the workshop with their figures put into the chosen units; the names of parts and
 * sheets stay as they were given, whatever figures stand in them. */
export function useInUnits() {
  const { build } = useBuild()
  return inUnitsBut(() =>
    [...(build.value?.parts ?? []), ...(build.value?.lots ?? [])].map((each) => each.name),
  )
}

/** The same, where some names are left as they were given. */
export function inUnitsBut(given: () => string[]) {
  const { units, number } = useUnits()

  /** Names that a figure stands in, longest first, to be left as they are. */
  const names = computed(() => {
    const measured = given().filter((name) => name.search(FIGURE) >= 0)
    return measured.sort((one, other) => other.length - one.length)
  })

  /** A moment: so many grams at the end of a metre, or ounces at the end of a foot. */
  const moments = (text: string) =>
    units.value.length.base === 1
      ? text
      : text.replace(/(\d+) g at a metre/g, (_, grams: string) => {
          const kind = units.value.mass.name === 'g' ? 1 : units.value.mass.base
          return `${fixed((Number(grams) * 1000) / 304.8 / kind, 1)} ${units.value.mass.name} at a foot`
        })

  function figures(text: string): string {
    return moments(text).replace(
      FIGURE,
      (whole, low: string, high: string | undefined, unit: string) => {
        const kind = WRITTEN[unit]
        if (!kind || units.value[kind].base === 1) return decimals(whole)
        const figure = (typed: string) => number(Number(typed), kind)
        return `${figure(low)}${high ? ` to ${figure(high)}` : ''} ${units.value[kind].name}`
      },
    )
  }
  const decimals = (text: string) => text.replace(/\d+\.\d+/g, decimal)

  return function inUnits(sentence: string | null | undefined): string {
    if (!sentence) return ''
    for (const name of names.value) {
      const at = sentence.toLowerCase().indexOf(name.toLowerCase())
      if (at < 0) continue
      const end = at + name.length
      return inUnits(sentence.slice(0, at)) + sentence.slice(at, end) + inUnits(sentence.slice(end))
    }
    return figures(sentence)
  }
}
