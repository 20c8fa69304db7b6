import { computed, ref, watch, type Ref } from 'vue'
import type { Assessment, Lot } from '../api/client'
import { once } from '../shared/once'
import { freshId } from '../shared/freshId'
import { useBuild } from '../shared/useBuild'
import { useOutbox } from '../shared/useOutbox'
import { understand, whyNot } from '../shared/useQuantity'
import { useScaleAtHand } from '../shared/useScaleAtHand'
import { useUnits } from '../shared/units'
import { useUsualSample } from '../shared/usualSample'
import { useWords } from '../shared/useWords'

const SIZES = { dm2: 'area', m: 'run', piece: 'pieces' } as const

export interface Move {
  id: string
  name: string
  before: number
  after: number
}

/** Weighing a piece of a lot where it hangs: a square, a whole sheet, a length. */
export function useSample(lot: Ref<Lot | undefined>) {
  const { id, build, assessment, keepReading } = useBuild()
  const words = useWords()
  const { units } = useUnits()
  const size = ref('')
  const reading = ref('')
  const wrong = ref('')
  /** What the last sample moved, and all-up weight with its doubt before and after. */
  const moved = ref<{ parts: Move[]; auw: [number, number]; sd: [number, number] }>()

  const { scale: atHand } = useScaleAtHand()

  const usual = useUsualSample()
  const first = computed(() => usual(lot.value?.unit ?? 'dm2').typed)
  watch(first, (now, before) => {
    if (size.value === before) size.value = now
  })
  watch(
    () => lot.value?.id,
    () => {
      size.value = first.value
      reading.value = wrong.value = ''
      moved.value = undefined
    },
    { immediate: true },
  )

  function compared(before: Assessment, after: Assessment, of: string): void {
    const was = new Map(before.parts.map((part) => [part.id, part.mass_g]))
    const cut = (build.value?.parts ?? []).filter(
      (part) => !part.retired && part.uses.some((use) => use.lot === of),
    )
    const now = new Map(after.parts.map((part) => [part.id, part.mass_g]))
    const auw = (told: Assessment) => told.loadouts[0]?.answers.find((each) => each.kind === 'auw')
    moved.value = {
      parts: cut.map((part) => ({
        id: part.id,
        name: part.name,
        before: was.get(part.id) ?? 0,
        after: now.get(part.id) ?? 0,
      })),
      auw: [auw(before)?.value ?? 0, auw(after)?.value ?? 0],
      sd: [auw(before)?.sd ?? 0, auw(after)?.sd ?? 0],
    }
  }

  let before: Assessment | undefined
  const outbox = useOutbox(
    id,
    (recorded) => {
      const of = recorded.weighing.pan.samples[0]?.lot
      keepReading(recorded)
      if (before && of) compared(before, recorded.assessment, of)
    },
    (error) => words.complain(error),
  )

  /** The unit that is meant where a size names none: as the label says. */
  function sizeUnit(of: Lot['unit']): string | undefined {
    if (of === 'm') return units.value.run.name
    return of === 'dm2' && units.value.length.name !== 'mm' ? units.value.area.name : undefined
  }

  const record = once(async () => {
    const { value: of } = lot
    const scale = atHand.value
    const typed = reading.value
    wrong.value = ''
    if (!of) return
    if (!scale) {
      wrong.value = 'This build has no scale yet; add one on the Plan.'
      return
    }
    try {
      const amount = await understand(size.value, SIZES[of.unit], sizeUnit(of.unit))
      if (!typed.trim()) throw new Error('What does the scale show?')
      const shown = await understand(typed, 'mass', units.value.mass.name)
      before = assessment.value
      const sample = { lot: of.id, amount }
      outbox.post(
        {
          id: freshId(),
          at: new Date().toISOString(),
          scale: scale.id,
          reading_g: shown,
          pan: { loads: [], samples: [sample], known_g: 0 },
          typed,
        },
        Promise.resolve(),
      )
      if (reading.value === typed) reading.value = ''
    } catch (error) {
      wrong.value = whyNot(error)
    }
  })

  return { size, reading, wrong, moved, record, waiting: outbox.waiting }
}
