import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { RefusedError, type CutPlan, type CutStep, type Part, type Problem } from '../api/client'
import { paper } from '../shared/paper'
import { fileName, handOver } from '../shared/picture'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { whyNot } from '../shared/useQuantity'

export type Grain = NonNullable<Part['pattern']>['grain']

export const GRAINS: { value: Grain; title: string }[] = [
  { value: 'free', title: 'any way' },
  { value: 'along', title: 'its length along the sheet' },
  { value: 'across', title: 'its length across the sheet' },
]

/** What was laid last on this device, and of which parts. */
interface Kept {
  plans: CutPlan[]
  of: string
}

/** The parts that are cut out of sheets, laid on them by the workshop while the page looks on. */
export function useCutting() {
  const { id, build, changePart } = useBuild()
  const { units } = useUnits()

  const knife = useLocalStorage('oaken-scale-knife', { kerf: 0.5, margin: 5 })
  const kept = useLocalStorage<Kept | null>(`oaken-scale-cuts-${id.value}`, null, {
    serializer: StorageSerializers.object,
  })
  const plans = shallowRef<CutPlan[]>(kept.value?.plans ?? [])
  const gone = ref<number | null>(null)
  const wrong = ref('')
  const left = ref(new Set<string>())
  let ending: AbortController | undefined

  const sheets = computed(
    () =>
      new Map(build.value?.lots.filter((lot) => lot.unit === 'dm2').map((lot) => [lot.id, lot])),
  )
  const parts = computed(
    () =>
      build.value?.parts.filter(
        (part) =>
          !part.retired && part.uses.some((use) => use.amount > 0 && sheets.value.has(use.lot)),
      ) ?? [],
  )
  const chosen = computed(() => parts.value.filter((part) => !left.value.has(part.id)))
  const facts = computed(() =>
    JSON.stringify([
      parts.value.map((part) => [part.id, part.uses, part.pieces, part.pattern]),
      [...sheets.value.values()].map((lot) => [lot.id, lot.length_mm, lot.width_mm, lot.faces]),
    ]),
  )
  /** The parts or the sheets have changed since they were laid. */
  const isOld = computed(() => !!kept.value && kept.value.of !== facts.value)

  function press(part: string) {
    const next = new Set(left.value)
    if (!next.delete(part)) next.add(part)
    left.value = next
  }

  async function lay() {
    stop()
    const mine = (ending = new AbortController())
    const of = facts.value
    wrong.value = ''
    gone.value = 0
    try {
      const response = await fetch(`/api/v1/builds/${id.value}/cutting`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        signal: mine.signal,
        body: JSON.stringify({
          kerf_mm: knife.value.kerf,
          margin_mm: knife.value.margin,
          parts: left.value.size ? chosen.value.map((part) => part.id) : null,
        }),
      })
      if (!response.ok || !response.body)
        throw new RefusedError(response.status, (await response.json()) as Problem)
      const found = new Map<string, CutPlan>()
      for await (const step of linesOf(response.body)) {
        gone.value = step.gone
        if (!step.plan) continue
        found.set(step.plan.lot, step.plan)
        plans.value = [...found.values()]
        kept.value = { plans: plans.value, of }
      }
    } catch (error) {
      if (!mine.signal.aborted) wrong.value = whyNot(error, (field) => FIELDS[field])
    } finally {
      if (ending === mine) gone.value = null
    }
  }

  /** What was found so far stands. */
  function stop() {
    ending?.abort()
    gone.value = null
  }
  watch(id, stop)

  async function hand(kind: 'svg' | 'dxf' | 'csv' | 'pdf') {
    const query = new URLSearchParams({ paper: paper.value })
    query.set('length', units.value.length.name === 'mm' ? 'mm' : 'in')
    const drawn = plans.value.map(({ lot, name, length_mm, width_mm, sheets, pieces }) => ({
      lot,
      name,
      length_mm,
      width_mm,
      sheets,
      pieces,
    }))
    try {
      const response = await fetch(`/api/v1/builds/${id.value}/cutting/${kind}?${query}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ plans: drawn }),
      })
      if (!response.ok) throw new RefusedError(response.status, (await response.json()) as Problem)
      handOver(await response.blob(), fileName(build.value?.name ?? '', `cuts.${kind}`))
    } catch (error) {
      wrong.value = whyNot(error, (field) => FIELDS[field])
    }
  }

  /** How a part lies to the grain; one without an outline of its own has nothing to lie. */
  function turn(part: Part, grain: Grain) {
    void changePart(part.id, (now) => ({
      ...now,
      pattern: now.pattern && { ...now.pattern, grain },
    }))
  }

  /** A part is a plain rectangle of such sides. */
  function sized(part: Part, long: number, wide: number) {
    const ring = [[0, 0], [long, 0], [long, wide], [0, wide]] // prettier-ignore
    const pattern = { rings: [ring], grain: 'free' as const, layers: 1 }
    void changePart(part.id, (now) => ({ ...now, pattern }))
  }

  return {
    knife, parts, chosen, left, press, sheets, plans, isOld, gone, wrong, lay, stop, hand, turn, sized,
  } // prettier-ignore
}

const FIELDS: Record<string, string> = {
  kerf_mm: 'The kerf',
  margin_mm: 'The margin',
  parts: 'The parts',
  plans: 'These sheets',
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<CutStep> {
  const reader = body.getReader()
  const decoder = new TextDecoder()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    rest += decoder.decode(value, { stream: true })
    const lines = rest.split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) yield JSON.parse(line) as CutStep
  }
}
