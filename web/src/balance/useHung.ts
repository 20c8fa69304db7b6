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
  parts: string[]
}

/** Lighter things, and what is cut, glued or taped, hang together with their assembly. */
const OWN_SHARE = 0.035

/** What hangs on the beam in the loadout shown: the heavy and the movable by themselves. */
export function useHung() {
  const { build, assessment, loadout } = useBuild()
  const { moved } = useTrial()

  return computed<Hung[]>(() => {
    const parts = new Map(build.value?.parts.map((part) => [part.id, part]))
    const carries =
      build.value?.loadouts.find((each) => each.id === loadout.value?.id)?.carries ?? []
    const edge = assessment.value?.wing?.leading_edge_x_mm ?? 0
    const aboard = (assessment.value?.parts ?? []).flatMap((mass) => {
      const part = parts.get(mass.id)
      if (!part || part.retired || mass.x_from_nose_mm === null) return []
      const options = (build.value?.loadouts.length ?? 0) > 0
      if (part.option && options && !carries.includes(part.id)) return []
      return [{ part, mass: mass.mass_g, x: moved.value.get(mass.id) ?? mass.x_from_nose_mm }]
    })
    const total = aboard.reduce((sum, each) => sum + each.mass, 0)
    const hung: Hung[] = []
    const rest = new Map<string, typeof aboard>()
    for (const each of aboard) {
      const { part, mass, x } = each
      const isPart = part.uses.length > 0 || part.pedigree === 'guess'
      if (!part.slide && (isPart || mass < OWN_SHARE * total)) {
        const group = part.assembly.split('/')[0] || 'loose parts'
        rest.set(group, [...(rest.get(group) ?? []), each])
        continue
      }
      const add = part.station?.reference === 'leading_edge' ? edge : 0
      const slide = part.slide
        ? { low: part.slide.low_mm + add, high: part.slide.high_mm + add }
        : null
      hung.push({ id: part.id, name: part.name.toLowerCase(), x, mass, slide, parts: [part.id] })
    }
    for (const [group, parts] of rest) {
      const mass = parts.reduce((sum, each) => sum + each.mass, 0)
      if (mass <= 0) continue
      const x = parts.reduce((sum, each) => sum + each.mass * each.x, 0) / mass
      const ids = parts.map((each) => each.part.id)
      hung.push({
        id: `rest-${group}`,
        name: group.toLowerCase(),
        x,
        mass,
        slide: null,
        parts: ids,
      })
    }
    return hung
  })
}
