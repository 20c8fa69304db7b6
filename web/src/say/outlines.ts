import type { OddOutline, OutlineFlaw } from '../api/client'
import { useUnits } from '../shared/units'

/** What is told of a drawing that was read, in sentences. */
export function useOutlineWords() {
  const { number, quantity } = useUnits()

  /** Why a part that it offers cannot be kept as it is. */
  function flaw({ kind, x_mm, y_mm }: OutlineFlaw): string {
    if (kind === 'holes_leave_nothing') return 'its holes leave nothing of it'
    const at =
      x_mm === null || y_mm === null
        ? ''
        : ` near ${number(x_mm, 'length')}, ${quantity(y_mm, 'length')}`
    return `crosses itself${at}; mend it in the drawing`
  }

  /** What was set right in it, or left out. */
  function odd({ kind, count }: OddOutline): string {
    const one = count === 1
    switch (kind) {
      case 'shared_edges':
        return `${count} parts share edges that are drawn once; if such a line only marks a fold, leave it out of the file, or choose the parts to keep.`
      case 'encloses_nothing':
        return one ? 'One closed path encloses nothing.' : `${count} closed paths enclose nothing.`
      case 'drawn_twice':
        return one
          ? 'One outline is drawn twice and counts once.'
          : `${count} outlines are drawn twice and count once.`
    }
  }

  return { flaw, odd }
}
