import { computed } from 'vue'
import { useBuild } from '../shared/useBuild'
import { useTrial } from './useTrial'

export interface Hung {
  id: string
  name: string
  /** Where it hangs [mm from the nose], and its mass [g]. */
  x: number
  mass: number
  /** Where it may slide to [mm from the nose]; null for what stays. */
  slide: { low: number; high: number } | null
  items: string[]
}

/** Lighter things, and what is cut, glued or taped, hang together with their assembly. */
const OWN_SHARE = 0.035

/** What hangs on the beam in the loadout shown: the heavy and the movable by themselves. */
export function useHung() {
  const { build, assessment, loadout } = useBuild()
  const { moved } = useTrial()

  return computed<Hung[]>(() => {
    const items = new Map(build.value?.items.map((item) => [item.id, item]))
    const carries =
      build.value?.loadouts.find((each) => each.id === loadout.value?.id)?.carries ?? []
    const edge = assessment.value?.wing?.leading_edge_x_mm ?? 0
    const aboard = (assessment.value?.items ?? []).flatMap((mass) => {
      const item = items.get(mass.id)
      if (!item || item.retired || mass.x_from_nose_mm === null) return []
      const options = (build.value?.loadouts.length ?? 0) > 0
      if (item.option && options && !carries.includes(item.id)) return []
      return [{ item, mass: mass.mass_g, x: moved.value.get(mass.id) ?? mass.x_from_nose_mm }]
    })
    const total = aboard.reduce((sum, each) => sum + each.mass, 0)
    const hung: Hung[] = []
    const rest = new Map<string, typeof aboard>()
    for (const each of aboard) {
      const { item, mass, x } = each
      const isPart = item.uses.length > 0 || item.pedigree === 'guess'
      if (!item.slide && (isPart || mass < OWN_SHARE * total)) {
        const group = item.assembly.split('/')[0] || 'loose parts'
        rest.set(group, [...(rest.get(group) ?? []), each])
        continue
      }
      const add = item.station?.reference === 'leading_edge' ? edge : 0
      const slide = item.slide
        ? { low: item.slide.low_mm + add, high: item.slide.high_mm + add }
        : null
      hung.push({ id: item.id, name: item.name.toLowerCase(), x, mass, slide, items: [item.id] })
    }
    for (const [group, parts] of rest) {
      const mass = parts.reduce((sum, each) => sum + each.mass, 0)
      if (mass <= 0) continue
      const x = parts.reduce((sum, each) => sum + each.mass * each.x, 0) / mass
      const ids = parts.map((each) => each.item.id)
      hung.push({
        id: `rest-${group}`,
        name: group.toLowerCase(),
        x,
        mass,
        slide: null,
        items: ids,
      })
    }
    return hung
  })
}
