import type { NewPart, Part } from '../api/client'
import { inARow, inSentence } from './names'
import { useBuild } from '../shared/useBuild'
import { plainly, useUnits } from '../shared/units'

const LOT_SHOWN = { dm2: 'area', m: 'run' } as const

/** The longest name that a part may have. */
const LONGEST = 80

/** What a repair leaves on a part, by about how much of each there is; where none is, nothing is. */
export function leftByRepair(host: string, glue_g: number | null, patch_g: number | null) {
  const what = [
    { name: 'Glue', pedigree: 'joint', stated_g: glue_g },
    { name: 'Patch', pedigree: 'guess', stated_g: patch_g },
  ] as const
  return what.flatMap(({ name, pedigree, stated_g }): NewPart[] => {
    if (stated_g === null) return []
    return [{ name: `${name} on ${inSentence(host)}`.slice(0, LONGEST), pedigree, stated_g }]
  })
}

/** What a part is called that takes the place of one, unless it is given a name. */
export function calledAnew(old: string): string {
  return `${old.slice(0, LONGEST - ', new'.length)}, new`
}

/** What a part's place is measured from; of what has none yet the nose is meant. */
export const fromWhere = (part?: Part) =>
  `from the ${part?.station?.reference === 'leading_edge' ? 'leading edge' : 'nose'}`

/** What the pages say of a part as it was typed. */
export function usePartWords() {
  const { build, assessment, nameOf } = useBuild()
  const { number, quantity } = useUnits()

  /** What its mass is worked out from. */
  function basis(part: Part): string {
    const use = part.uses[0]
    const lot = build.value?.lots.find((each) => each.id === use?.lot)
    if (use && lot) {
      const amount =
        lot.unit === 'piece' ? `${use.amount}` : quantity(use.amount, LOT_SHOWN[lot.unit])
      return `${amount} of ${lot.name}`
    }
    if (part.stated_g !== null) return quantity(part.stated_g, 'mass')
    if (part.pedigree !== 'allowance')
      return part.elsewhere ? 'as another build found' : 'nobody knows yet'
    return `${plainly(100 * (assessment.value?.allowance_share ?? 0), 1)} % of the rest`
  }

  /** Where it sits; nothing for the side and the height that are none. */
  function place(part: Part): string[] {
    if (!part.station) return ['not placed yet']
    const { x_mm, y_mm, z_mm } = part.station
    const along = `${quantity(x_mm, 'length')} ${fromWhere(part)}`
    const across =
      y_mm && `${quantity(Math.abs(y_mm), 'length')} to ${y_mm < 0 ? 'port' : 'starboard'}`
    const up = z_mm && `${quantity(Math.abs(z_mm), 'length')} ${z_mm < 0 ? 'down' : 'up'}`
    return [along, across, up].filter((each) => typeof each === 'string')
  }

  /** That another pack flies with this one: its builder may have meant one at a time. */
  function atOnce({ id }: Part): string {
    const packs = assessment.value?.packs_at_once ?? []
    const others = packs.filter((each) => each !== id).map(nameOf)
    if (!packs.includes(id) || !others.length) return ''
    return `; ${inARow(others)} ${others.length > 1 ? 'fly' : 'flies'} at once with it: if one flies at a time, make loadouts of them`
  }

  /** What a line was understood to be. */
  function spoken(part: Part): string {
    const grams = part.pieces > 1 ? part.stated_g : null
    const each = grams === null ? '' : ` of ${quantity(grams / part.pieces, 'mass')}`
    const pieces = part.pieces > 1 ? [`${part.pieces} pieces${each}`] : []
    const where = part.assembly ? [`in ${part.assembly}`] : []
    const slides = part.slide
      ? [
          `slides ${number(part.slide.low_mm, 'length')} to ${quantity(part.slide.high_mm, 'length')}`,
        ]
      : []
    const option = part.option ? ['an option'] : []
    return `${part.name}: ${[`${basis(part)}${each && ' in all'}`, ...pieces, ...place(part), ...slides, ...where, ...option].join(', ')}${atOnce(part)}`
  }

  return { basis, spoken }
}
