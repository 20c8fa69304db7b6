import type { VariantComparison } from '../api/client'
import { fixed, useUnits } from '../shared/units'

type Change = VariantComparison['changes'][number]

/** What is different about a variant, in sentences. */
export function useVariantWords() {
  const { quantity, number, units } = useUnits()

  function change({ kind, name, before, after, by_mm, colour }: Change): string {
    switch (kind) {
      case 'span':
        return `span ${number(before ?? 0, 'length')} to ${quantity(after ?? 0, 'length')}`
      case 'area':
        return units.value.area.base === 1
          ? `wing ${fixed(before ?? 0, 1)} to ${fixed(after ?? 0, 1)} ${units.value.area.name}`
          : `wing ${number(before ?? 0, 'area')} to ${quantity(after ?? 0, 'area')}`
      case 'drawing':
        return 'another drawing'
      case 'without':
        return `without ${name}`
      case 'with':
        return `with ${name}`
      case 'made_otherwise':
        return `${name} made otherwise`
      case 'moved':
        return `${name} ${quantity(Math.abs(by_mm ?? 0), 'length')} ${(by_mm ?? 0) > 0 ? 'aft' : 'forward'}`
      case 'placed_otherwise':
        return `${name} placed otherwise`
      case 'placed':
        return `${name} placed`
      case 'coloured':
        return colour === null ? `${name} plain` : `${name} in ${colour}`
      case 'targets':
        return 'other targets'
      case 'thrust':
        return 'another thrust'
      case 'drive':
        return 'another drive'
      case 'loadouts':
        return 'other loadouts'
    }
  }

  /** All of it on one line. */
  return function changes({ changes: each, more }: VariantComparison): string {
    return [...each.map(change), ...(more ? [`and ${more} more`] : [])].join('; ')
  }
}
