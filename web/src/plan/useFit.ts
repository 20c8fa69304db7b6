import { computed } from 'vue'
import type { Build, Part } from '../api/client'
import { misfit } from '../say/fit'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

export type Bay = Build['bays'][number]
export type Fit = NonNullable<Part['fit']>

export const NO_FIT: Fit = {
  length_mm: null,
  width_mm: null,
  height_mm: null,
  lead_mm: null,
  plugs_into: null,
  bay: null,
  role: null,
}

/** The bays of a build and what its parts take up in them. */
export function useFit() {
  const { build, assessment, change, changePart, takeOff } = useBuild()
  const { quantity } = useUnits()

  const bays = computed(() => build.value?.bays ?? [])
  const parts = computed(() => (build.value?.parts ?? []).filter((part) => !part.retired))
  /** Those that something was said of, in their order. */
  const fitted = computed(() => parts.value.filter((part) => part.fit !== null))
  const others = computed(() =>
    parts.value.filter(
      (part) => part.fit === null && part.host === null && part.pedigree !== 'allowance',
    ),
  )
  const told = computed(() => assessment.value?.fit)
  const name = (id: string) =>
    [...parts.value, ...bays.value].find((each) => each.id === id)?.name ??
    build.value?.field.controls.find((each) => each.id === id)?.name ??
    id
  const notes = computed(() =>
    (told.value?.notes ?? []).map((note) => misfit(note, name, (by) => quantity(by, 'length'))),
  )

  const setBay = (id: string, patch: Partial<Bay>) =>
    change((now) => ({
      bays: now.bays.map((each) => (each.id === id ? { ...each, ...patch } : each)),
    }))
  function addBay() {
    const size = { x_mm: 80, length_mm: 120, width_mm: 45, height_mm: 50, y_mm: 0, z_mm: 0 }
    return change(({ bays: there }) => {
      const taken = new Set(there.map((each) => each.id))
      let n = 1
      while (taken.has(n > 1 ? `bay-${n}` : 'bay')) n++
      const fresh = { id: n > 1 ? `bay-${n}` : 'bay', name: n > 1 ? `Bay ${n}` : 'Bay', ...size }
      return { bays: [...there, fresh] }
    })
  }
  const dropBay = (bay: Bay) => takeOff('bays', bay.id, bay.name)

  function setFit(part: Part, patch: Partial<Fit> | null) {
    void changePart(part.id, (now) => ({
      ...now,
      fit: patch === null ? null : { ...NO_FIT, ...now.fit, ...patch },
    }))
  }

  return { bays, fitted, others, parts, told, name, notes, setBay, addBay, dropBay, setFit }
}
