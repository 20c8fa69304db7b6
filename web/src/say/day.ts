import type { DayTold } from '../api/client'
import { fixed } from '../shared/units'

export type Slot = DayTold['slots'][number]
type Step = Slot['step']

/** What a step is called: its act, and what it is of. */
export function stepTitle(step: Step): string {
  const subject = step.subject || 'the rest'
  const titles: Record<Step['kind'], string> = {
    cut: `Cut ${subject}`,
    weigh: `Weigh what is new of ${subject}`,
    join: `Spread: ${subject}`,
    cover: `Cover: ${subject}`,
    fit: `Lay out and fix ${subject}`,
    straight: 'Look along it: straight, or twisted?',
    balance: step.subject ? `Balance it by hand: ${step.subject}` : 'Balance it by hand',
    own: step.name,
  }
  return titles[step.kind]
}

/** Minutes as they are said on a bench. */
export function lasting(minutes: number): string {
  if (minutes < 1) return 'under a minute'
  if (minutes < 90) return `${fixed(minutes, 0)} min`
  const hours = Math.floor(minutes / 60)
  const rest = Math.round(minutes - 60 * hours)
  if (hours >= 24) return `${fixed(minutes / 60, 0)} h`
  return rest ? `${hours} h ${rest} min` : `${hours} h`
}

export const KIND_WORDS: Record<Step['kind'], string> = {
  cut: 'cutting',
  weigh: 'weighing',
  join: 'glueing',
  cover: 'covering',
  fit: 'fitting',
  straight: 'looking along it',
  balance: 'balancing',
  own: 'your own steps',
}
