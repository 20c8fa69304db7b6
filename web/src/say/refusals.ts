import type { FieldFault, ListFault, Problem } from '../api/client'
import { decimal, useUnits, type Shown } from '../shared/units'

/** The base units that builders choose others for. */
const KINDS: Record<string, Shown> = {
  g: 'mass',
  gf: 'thrust',
  mm: 'length',
  m: 'run',
  dm2: 'area',
  'g/dm2': 'loading',
}

/** What a page calls a field of the workshop; nothing where the words say it themselves. */
export type Called = (field: string) => string | undefined

/** An amount in the chosen unit, as exact as it is there: a tenth of a gram is no ounce at all. */
function said({ value, unit }: Exclude<FieldFault['facts'][number], string>): string {
  const chosen = useUnits().units.value[KINDS[unit] ?? 'run']
  const base = unit in KINDS ? chosen.base : 1
  const figure = value / base
  const rounded = base === 1 ? String(Number(figure.toFixed(2))) : figure.toFixed(chosen.digits)
  const told =
    Number(rounded) === 0 && figure !== 0 ? figure.toPrecision(2).replace(/0+$/, '') : rounded
  return `${decimal(told).replace('-', '−')} ${unit in KINDS ? chosen.name : unit}`.trim()
}

/** What is wrong, and what would be right, in the chosen units. */
function inWords({ text, facts = [] }: Pick<FieldFault, 'text'> & Partial<FieldFault>): string {
  let at = 0
  return facts.length
    ? text.replace(/\{\}/g, () => {
        const fact = facts[at++] ?? ''
        return typeof fact === 'string' ? fact : said(fact)
      })
    : text
}

/** A field, and what is wrong with it. */
function about(name: string | undefined, fault: ListFault | FieldFault): string {
  const field = name ?? fault.field
  return field ? `${field}${fault.alone ? ':' : ''} ${inWords(fault)}` : inWords(fault)
}

/** What the workshop refused, each field called as its page calls it. */
export function refusal(problem: Problem, called: Called = () => undefined): string {
  const each = (problem.faults ?? []).map((fault) => about(called(fault.field), fault))
  return each.join('; ') || problem.detail
}

/** Why a line of a list cannot come in: what is wrong with which of its columns. */
export function whyLeftOut(fault: ListFault): string {
  return about(fault.field, fault)
}
