import { inSentence } from '../say/names'
import { computed, ref, watch } from 'vue'
import { answered, api, type Doubt, type Slip } from '../api/client'
import { useBuild } from '../shared/useBuild'
import { plainly, useUnits } from '../shared/units'
import { useWords } from '../shared/useWords'
import { panWords } from './panWords'
import { useBench } from './useBench'

/** Slips in what was put down as being on the pan; the reading itself was right. */
const RECORDS = new Set<Slip['kind']>([
  'left on',
  'left off',
  'wrong part',
  'glued since',
  'pieces',
])

/** Doubtful readings in words, and what can be done about each. */
export function useDoubts() {
  const { build, assessment, setAside, accept, correct, nameOf } = useBuild()
  const { put } = useBench()
  const { quantity } = useUnits()
  const words = useWords()

  const doubts = computed(
    () => new Map(assessment.value?.doubts.map((each) => [each.weighing, each])),
  )

  function container(id: string | null): string {
    const found = build.value?.containers.find((each) => each.id === id)
    return found ? `${inSentence(found.name)}, ${quantity(found.mass_g, 'mass')},` : 'container'
  }
  const thing = (id: string | null) => inSentence(nameOf(id ?? ''))

  /** What the slip was, as its reason is kept in the log. */
  function reason(slip: Slip): string {
    const right = quantity(slip.reading_g, 'mass')
    return {
      'not tared': `the ${container(slip.subject)} was not tared`,
      'tared twice': `the ${container(slip.subject)} was tared and then taken off`,
      'left on': `the ${thing(slip.subject)} was on the pan too`,
      'left off': `the ${thing(slip.subject)} was not on the pan`,
      ounces: 'ounces were recorded as grams',
      grams: 'grams were recorded as ounces',
      decimal: `the decimal slipped: ${right}`,
      digits: `two digits were swapped: ${right}`,
      'wrong part': `it was the ${thing(slip.subject)}`,
      unsteady: 'it was read before it was steady',
      'glued since': slip.subject
        ? `the ${thing(slip.subject)} was on it by then`
        : 'glue was added since it was weighed before',
      pieces: `it was ${pieces(slip)} of the ${thing(slip.subject)}`,
    }[slip.kind]
  }

  /** How many pieces of a thing a slip says were on the pan. */
  function pieces(slip: Slip): string {
    const part = build.value?.parts.find((each) => each.id === slip.subject)
    const count = (slip.pan.loads[0]?.count ?? 1) * (part?.pieces ?? 1)
    return Math.abs(count - 1) < 1e-6 ? 'one' : `all ${plainly(count)}`
  }

  /** The same as a question, while the reading is still on the pan. */
  function question(slip: Slip): string {
    const name = thing(slip.subject)
    return {
      'not tared': `is the ${container(slip.subject).split(',')[0]} on?`,
      'tared twice': `was the ${container(slip.subject).split(',')[0]} tared and taken off?`,
      'left on': `is the ${name} on it too?`,
      'left off': `is the ${name} missing?`,
      ounces: 'are these ounces?',
      grams: 'are these grams?',
      decimal: `did the decimal slip: ${quantity(slip.reading_g, 'mass')}?`,
      digits: `are two digits swapped: ${quantity(slip.reading_g, 'mass')}?`,
      'wrong part': `is it the ${name}?`,
      unsteady: 'is it steady yet?',
      'glued since': slip.subject ? `is the ${name} on it?` : 'was glue added since?',
      pieces: `is it ${pieces(slip)} of the ${name}?`,
    }[slip.kind]
  }

  /** What putting it right would record. */
  function repair(slip: Slip): string {
    if (!slip.repair) return 'weigh it again'
    if (RECORDS.has(slip.kind)) return 'put the record right'
    return `put it right: ${quantity(slip.reading_g, 'mass')}`
  }

  function rivals(doubt: Doubt): string {
    const names = doubt.contradicts.map((id) => {
      const other = build.value?.weighings.find((each) => each.id === id)
      return other
        ? `${panWords(other.pan, build.value)}, ${quantity(other.reading_g, 'mass')}`
        : id
    })
    return names.join('; ')
  }

  async function putRight(doubt: Doubt, slip: Slip) {
    if (!slip.repair) {
      await weighAgain(doubt)
      return
    }
    const { reading_g, pan } = slip
    if (await correct(doubt.weighing, { reading_g, pan, reason: reason(slip) }))
      words.say('Put right in a new row; U takes it back.')
  }

  async function weighAgain(doubt: Doubt) {
    const wrong = build.value?.weighings.find((each) => each.id === doubt.weighing)
    if (wrong && (await setAside(doubt.weighing, 'to be weighed again'))) put(wrong.pan)
  }

  return {
    doubts,
    reason,
    question,
    repair,
    rivals,
    putRight,
    weighAgain,
    leaveOut: (doubt: Doubt) => setAside(doubt.weighing, 'doubtful'),
    letStand: (doubt: Doubt) => accept(doubt.weighing, true),
  }
}

/** What speaks against the reading that is on the pan now, before it is recorded. */
export function useSuspicion(reading: () => number | undefined) {
  const { id } = useBuild()
  const { expected, pan } = useBench()
  const doubt = ref<Doubt | null>(null)
  let turn = 0

  watch([reading, expected, pan], async () => {
    const shown = reading()
    const mine = ++turn
    doubt.value = null
    if (!expected.value || !shown || shown <= 0) return
    if (shown >= expected.value.least_g && shown <= expected.value.most_g) return
    try {
      const told = await answered<Doubt | null>(
        api.GET('/api/v1/builds/{build_id}/pan/doubt', {
          params: { path: { build_id: id.value }, query: { reading_g: shown } },
        }),
      )
      if (mine === turn) doubt.value = told
    } catch {
      // Recording it will tell as much.
    }
  })
  return doubt
}
