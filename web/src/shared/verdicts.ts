import { inARow, inSentence } from '../say/names'
import type { Mend, TargetAnswer, Word } from '../api/client'
import { METRICS, MISSING } from '../say/metrics'
import { useBuild } from './useBuild'
import { finer, fixed, useUnits } from './units'

/** Whether a verdict calls for the builder's eye. */
export function isWorrying(word: Word | null): boolean {
  return word === 'off course' || word === 'missed' || word === 'too close to call'
}

const isLength = (answer: TargetAnswer) =>
  answer.kind === 'balance' && answer.unit !== 'percent_mac'

/** Answers, margins and verdicts put into the chosen units. */
export function useVerdicts() {
  const { number, quantity, stated, exactness, exactLeft, units } = useUnits()
  const { build, nameOf } = useBuild()

  /** A figure of an answer, as exact as its doubt lets it be, or one that had another doubt. */
  function value(amount: number, answer: TargetAnswer, sd = answer.sd): string {
    const { shown, digits } = METRICS[answer.kind]
    const kind = isLength(answer) ? 'length' : shown
    return kind ? number(amount, kind, exactness(sd, kind)) : fixed(amount, finer(sd ?? 0, digits))
  }

  /** An end of a target; a mass as it was stated. */
  function end(point: number, answer: TargetAnswer): string {
    return METRICS[answer.kind].shown === 'mass' ? stated(point) : value(point, answer)
  }

  function unit(answer: TargetAnswer): string {
    const { shown, unit: own } = METRICS[answer.kind]
    if (shown) return units.value[shown].name
    return isLength(answer) ? units.value.length.name : own
  }

  function origin(answer: TargetAnswer): string {
    if (answer.kind !== 'balance') return ''
    if (answer.unit === 'percent_mac') return 'MAC'
    return answer.unit === 'mm_from_nose' ? 'from nose' : 'from leading edge'
  }

  function margin(answer: TargetAnswer): string {
    if (answer.margin === null || answer.value === null) return ''
    const size = Math.abs(answer.margin)
    // Between two that are rounded alike there is something yet.
    const amount =
      METRICS[answer.kind].shown === 'mass' && size
        ? quantity(size, 'mass', exactLeft(size, answer.sd))
        : `${value(size, answer)} ${unit(answer)}`.trim()
    if (answer.margin >= 0) return `${amount} in hand`
    if (answer.kind === 'balance') {
      return `${amount} ${answer.high !== null && answer.value > answer.high ? 'aft' : 'forward'}`
    }
    return `${amount} ${answer.high !== null && answer.value > answer.high ? 'over' : 'short'}`
  }

  function words(answer: TargetAnswer): string {
    if (answer.missing) return MISSING[answer.missing]
    if (answer.word === null || answer.probability === null) return 'no target set'
    const doubtful = answer.word === 'on course' || answer.word === 'off course'
    const told = doubtful && (answer.margin ?? 0) >= 0 && answer.probability <= 0.99
    const chance = told ? `${percent(answer.probability)}, ` : ''
    return `${answer.word}, ${chance}${margin(answer)}`
  }

  /** What an answer does not believe, and what else it would be; empty where it believes all. */
  function doubting(answer: TargetAnswer): string {
    if (answer.believing === null || !answer.disbelieving.length) return ''
    const which = answer.disbelieving.map(reading)
    const them = which.length > 1 ? 'they are' : 'it is'
    return `not believing ${inARow(which)}; ${other(answer)} if ${them} right`
  }

  const other = (answer: TargetAnswer) =>
    `${value(answer.believing ?? 0, answer)}\u00a0${unit(answer)}`.trim()

  /** The same on a rod: in full on the weight, from which the others follow. */
  function doubtingShort(answer: TargetAnswer): string {
    if (answer.kind === 'auw' || !doubting(answer)) return doubting(answer)
    const them =
      answer.disbelieving.length > 1 ? 'the doubtful readings are' : 'the doubtful one is'
    return `${other(answer)} if ${them} right`
  }

  function reading(id: string): string {
    const found = build.value?.weighings.find((each) => each.id === id)
    const load = found?.pan.loads[0]
    if (!found) return 'a reading'
    const name = load ? (inSentence(nameOf(load.part)).split(',')[0] ?? '') : 'the sample'
    const more = found.pan.loads.length > 1 ? ` and ${found.pan.loads.length - 1} more` : ''
    return `${name}${more}, ${quantity(found.reading_g, 'mass').replace(' ', '\u00a0')}`
  }

  /** That a margin is thinner than a scale may be off that no known weight was ever on. */
  function unchecked(answer: TargetAnswer): string {
    const scale = build.value?.scales.find((each) => each.id === answer.unchecked_scale)
    if (!scale) return ''
    return `thinner than what ${scale.name} may be off: no known weight was ever on it`
  }

  function mend(mend: Mend, name: (id: string) => string): string {
    const amount = Math.abs(mend.amount)
    if (mend.by === 'lighter_g') return `${quantity(amount, 'mass', exactLeft(amount))} lighter`
    if (mend.by === 'more_thrust_gf') return `${quantity(amount, 'thrust')} more thrust`
    if (mend.by === 'more_power_w') return `${fixed(amount, 0)} W more power`
    if (mend.by === 'more_wing_dm2') return `${quantity(amount, 'area')} more wing`
    const way = mend.amount > 0 ? 'forward' : 'aft'
    return `${name(mend.part ?? '')} ${quantity(amount, 'length')} ${way}`
  }

  return { value, unit, end, origin, margin, words, mend, doubting, doubtingShort, unchecked }
}

/** A probability as builders read it; never certain before everything is weighed. */
export function percent(probability: number): string {
  if (probability > 0.99) return 'over 99 %'
  if (probability < 0.01) return 'under 1 %'
  return `${Math.round(probability * 100)} %`
}
