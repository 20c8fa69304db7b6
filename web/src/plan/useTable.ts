import { computed, ref, type Ref } from 'vue'
import type { Item, ItemMass } from '../api/client'

export type Column = 'list' | 'part' | 'assembly' | 'known' | 'nose' | 'now'
export type Only = 'all' | 'adrift' | 'guessed' | 'unweighed' | 'options'

export interface Row {
  item: Item
  mass: ItemMass | undefined
}

interface Section {
  name: string
  rows: Row[]
}

/** The list of parts as it is looked at: found, filtered, sorted, grouped by assembly. */
export function useTable(parts: Ref<Item[]>, masses: Ref<Map<string, ItemMass>>) {
  const find = ref('')
  const only = ref<Only>('all')
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
    adrift: ({ item }) => !item.station && item.pedigree !== 'allowance',
    guessed: ({ mass }) => mass?.mark === 'guess',
    unweighed: ({ mass }) => mass?.mark !== 'weighed' && mass?.mark !== 'difference',
    options: ({ item }) => item.option,
  }
  const worth: Record<Exclude<Column, 'list'>, (row: Row) => string | number> = {
    part: ({ item }) => item.name.toLowerCase(),
    assembly: ({ item }) => item.assembly.toLowerCase(),
    known: ({ item }) => item.pedigree,
    nose: ({ mass }) => mass?.x_from_nose_mm ?? Infinity,
    now: ({ mass }) => mass?.mass_g ?? 0,
  }

  const rows = computed<Row[]>(() => {
    const wanted = find.value.trim().toLowerCase()
    const found = parts.value
      .map((item) => ({ item, mass: masses.value.get(item.id) }))
      .filter(shows[only.value])
      .filter(({ item }) => `${item.name} ${item.assembly}`.toLowerCase().includes(wanted))
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
    const names = [...new Set(rows.value.map(({ item }) => item.assembly))]
    return names.map((name) => ({
      name: name || 'in no assembly',
      rows: rows.value.filter(({ item }) => item.assembly === name),
    }))
  })

  const aria = (column: Column) =>
    by.value !== column ? 'none' : down.value ? 'descending' : 'ascending'

  return { find, only, by, down, grouped, sort, rows, sections, aria }
}
