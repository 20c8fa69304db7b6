import { paper } from '../shared/paper'
import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useDecimalMark, useUnits } from '../shared/units'

export const PAPERS = [
  { name: 'a4', title: 'A4' },
  { name: 'letter', title: 'Letter' },
] as const

const mark = useDecimalMark()

/** The paper that is printed on, and the addresses of what is printed, in the chosen units. */
export function usePaper() {
  const { id, loadout } = useBuild()
  const { chosen } = useUnits()

  const asked = computed(() => ({
    paper: paper.value,
    mass: chosen.value.mass,
    length: chosen.value.length,
    area: chosen.value.area,
    mark: mark.value,
  }))

  /** The address of a page, with what else is asked of it. */
  function at(file: string, more: Record<string, string> = {}): string {
    const query = new URLSearchParams({ ...asked.value, ...more })
    return `/api/v1/builds/${encodeURIComponent(id.value)}/${file}?${query}`
  }
  /** The same of the loadout in front. */
  const inFront = (file: string) => at(file, loadout.value?.id ? { loadout: loadout.value.id } : {})

  return { paper, at, inFront }
}
