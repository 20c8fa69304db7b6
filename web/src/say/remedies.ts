import { inARow, inSentence } from './names'
import type { Remedies } from '../api/client'
import { finer, fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

type Remedy = NonNullable<Remedies['best']>
type Obstacle = NonNullable<Remedies['in_the_way']>

const begun = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1)

/** Remedies, and what stands in their way, as a builder would say them. */
export function useRemedyWords() {
  const { build, nameOf } = useBuild()
  const { quantity, units } = useUnits()

  const named = (part: string) => inSentence(nameOf(part))
  const grams = (amount: number) =>
    quantity(amount, 'mass', units.value.mass.name === 'g' && amount >= 10 ? 0 : undefined)

  function spotOf(id: string, remedy?: Remedy) {
    const spots = [...(build.value?.ballast.spots ?? []), ...(remedy?.spots ?? [])]
    return spots.find((each) => each.id === id)
  }
  const at = (id: string, remedy?: Remedy) => inSentence(spotOf(id, remedy)?.name ?? id)

  /** What is done, without its full stop; empty where nothing is. */
  function acts(remedy: Remedy): string {
    const slides = remedy.slides.map((each) => {
      const by = each.to_mm - each.from_mm
      const name = named(each.part)
      const way = by < 0 ? 'forward' : 'aft'
      return `slide the ${name}${name.includes(',') ? ',' : ''} ${quantity(Math.abs(by), 'length')} ${way}`
    })
    const ballast = remedy.ballast.map((each) => {
      const both = spotOf(each.spot, remedy)?.pair ? ' on each side' : ''
      return `${grams(each.grams)} at the ${at(each.spot, remedy)}${both}`
    })
    const none = slides.length && !ballast.length ? '; no ballast' : ''
    return [...slides, ...ballast].join(', then ') + none
  }

  function chance({ best, unsure_part: part }: Remedies): string {
    const surer = part ? `; weigh the ${named(part)} to be surer` : ''
    return `${fixed(100 * (best?.chance ?? 0), 0)} % in range${surer}`
  }

  /** One of the other ways, or one that is offered. */
  function way(remedy: Remedy): string {
    const breaks = remedy.breaks_limit ? ', but that breaks the weight limit' : ''
    return `${acts(remedy)}${breaks}.`
  }

  /** However little it is, it is not nothing. */
  function heldBy(amount: number): string {
    const { base, digits } = units.value.mass
    return quantity(amount, 'mass', finer(amount / 2 / base, digits))
  }
  /** What hangs to one side, and what would hold it. */
  const pull = ({ subject, amount, tip }: Obstacle) =>
    `the ${named(subject ?? '')} pulls it to the ${tip === 'left' ? 'right' : 'left'}; ${heldBy(amount ?? 0)} at the ${tip} tip would hold it`

  function obstacle(told: Obstacle, offers: Remedy[]): string {
    const { limit, subject, amount } = told
    const more = amount ?? 0
    switch (limit) {
      case 'permission': {
        const whose = (offers[0]?.slides ?? []).map((each) => `the ${named(each.part)}`)
        const may = told.may_move ? 'What may move does not reach' : 'Nothing may move yet'
        return whose.length
          ? `${may}: let ${inARow(whose)} slide.`
          : `${may}: allow ballast at the ${at(offers[0]?.ballast[0]?.spot ?? '', offers[0])}.`
      }
      case 'slides':
        return `The bay of the ${named(subject ?? '')} is ${quantity(Math.max(more, 0.5), 'length')} short.`
      case 'ballast': {
        const room = told.room_g ?? 0
        return `${grams(room + more)} at the ${at(subject ?? '')} would do; there is room and pieces for ${grams(room)}.`
      }
      case 'weight':
        return `${begun(told.way ? acts(told.way) : '')} would do, and break the weight limit by ${grams(more)}.`
      case 'sideways':
        return `${begun(pull(told))}.`
      case 'unplaced':
        return 'Until that is said, nothing else is worth moving.'
      case 'adrift':
        return `${grams(more)} still to come have no place: weigh the whole plane, or place them.`
      case 'range':
        return 'Nothing works: the range itself stands in the way.'
    }
  }

  /** What a change of the plan would save of the ballast. */
  const saves = (grams: number) =>
    grams > 0 ? `It saves ${quantity(grams, 'mass')} of ballast.` : 'It saves no ballast.'

  /** How the search ended. */
  function outcome(told: Remedies): string {
    switch (told.outcome) {
      case 'fine':
        return 'Every loadout is in its range as it is.'
      case 'no_farther':
        return `Nothing moves it farther in: ${chance(told)}.`
      case 'nothing_yet':
        return 'Needs parts with their stations: give them on the Plan.'
      case 'no_target':
        return 'Nothing is aimed for yet: press a range under “Where it belongs”, or give one on the Plan.'
      case 'in_the_way':
        return told.in_the_way ? obstacle(told.in_the_way, told.offers) : ''
      case 'found': {
        const unsure = told.sure ? '' : `: ${chance(told)}`
        return told.best ? `${begun(acts(told.best))}${unsure}.` : ''
      }
    }
  }

  return {
    outcome,
    saves,
    /** What is left to one side beside all that; nothing where it hangs in the middle. */
    beside: (told: Remedies) => (told.sideways ? `Sideways: ${pull(told.sideways)}.` : ''),
    other: (remedy: Remedy) => `or ${way(remedy)}`,
    offer: (remedy: Remedy) => begun(way(remedy)),
  }
}
