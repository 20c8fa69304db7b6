import { computed, ref, type Ref } from 'vue'
import { useRoute } from 'vue-router'
import type { Part, PartMass } from '../api/client'

export type Column = 'list' | 'part' | 'assembly' | 'known' | 'nose' | 'now'
export type Only = 'all' | 'adrift' | 'guessed' | 'unweighed' | 'options'

export interface Row {
  part: Part
  mass: PartMass | undefined
}

/** What lies in one place and nobody said in which. */
export const isAdrift = (part: Part) => !part.station && part.pedigree !== 'allowance'

interface Section {
  name: string
  rows: Row[]
}

/** The list of parts as it is looked at: found, filtered, sorted, grouped by assembly. The one that
 * is `open` stays in it whatever it has become. */
export function useTable(
  parts: Ref<Part[]>,
  masses: Ref<Map<string, PartMass>>,
  open: Ref<string | null>,
) {
  const find = ref('')
  const only = ref<Only>(useRoute().query.only === 'adrift' ? 'adrift' : 'all')
  const by = ref<Column>('list')
  const down = ref(false)
  const grouped = ref(false)

  /** Up, then down, then as listed. */
  function sort(column: Column) {
    if (by.value !== column) [by.value, down.value] = [column, false]
    else if (!down.value) down.value = true
    else [by.value, down.value] = ['list', false]
  }

  const shows: Record<Only, (row: Row) => boolean> = {
    all: () => true,
    adrift: ({ part }) => isAdrift(part),
    guessed: ({ mass }) => mass?.mark === 'guess',
    unweighed: ({ mass }) => mass?.mark !== 'weighed' && mass?.mark !== 'difference',
    options: ({ part }) => part.option,
  }
  const worth: Record<Exclude<Column, 'list'>, (row: Row) => string | number> = {
    part: ({ part }) => part.name.toLowerCase(),
    assembly: ({ part }) => part.assembly.toLowerCase(),
    known: ({ part }) => part.pedigree,
    nose: ({ mass }) => mass?.x_from_nose_mm ?? Infinity,
    now: ({ mass }) => mass?.mass_g ?? 0,
  }

  const rows = computed<Row[]>(() => {
    const wanted = find.value.trim().toLowerCase()
    const isFound = (part: Part) => `${part.name} ${part.assembly}`.toLowerCase().includes(wanted)
    const found = parts.value
      .map((part) => ({ part, mass: masses.value.get(part.id) }))
      .filter((row) => row.part.id === open.value || (shows[only.value](row) && isFound(row.part)))
    if (by.value === 'list') return found
    const of = worth[by.value]
    const sign = down.value ? -1 : 1
    return found.sort((one, other) => {
      const [a, b] = [of(one), of(other)]
      return a < b ? -sign : a > b ? sign : 0
    })
  })

  const sections = computed<Section[]>(() => {
    if (!grouped.value) return [{ name: '', rows: rows.value }]
    const names = [...new Set(rows.value.map(({ part }) => part.assembly))]
    return names.map((name) => ({
      name: name || 'in no assembly',
      rows: rows.value.filter(({ part }) => part.assembly === name),
    }))
  })

  const aria = (column: Column) =>
    by.value !== column ? 'none' : down.value ? 'descending' : 'ascending'

  return { find, only, by, down, grouped, sort, rows, sections, aria }
}
