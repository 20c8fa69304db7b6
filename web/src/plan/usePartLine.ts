import { computed, reactive, ref } from 'vue'
import type { Item, Kind, NewItem } from '../api/client'
import { useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { understand, understood, whyNot } from '../shared/useQuantity'

export const PEDIGREES = [
  { value: 'guess', title: 'guess', doubt: '25 %' },
  { value: 'listing', title: 'listing', doubt: '5 %' },
  { value: 'calculated', title: 'calculated', doubt: '3 %' },
  { value: 'joint', title: 'glue, paint', doubt: '40 %' },
  { value: 'covering', title: 'tape, film', doubt: '10 %' },
  { value: 'allowance', title: 'allowance', doubt: '100 %' },
] as const

const LOT_KINDS = { dm2: 'area', m: 'run', piece: 'pieces' } as const

interface Fields {
  name: string
  assembly: string
  pedigree: Item['pedigree']
  lot: string
  amount: string
  pieces: string
  /** Whether the figure is of each piece, or of all of them together. */
  of: 'all' | 'each'
  x: string
  reference: 'nose' | 'leading_edge'
  y: string
  z: string
  option: boolean
}

/** One line of the parts list: what is typed in it, and the part that it makes. */
export function usePartLine(item?: Item) {
  const { build } = useBuild()
  const { units } = useUnits()
  const wrong = ref('')

  const plain = (value: number, base = 1) => String(+(value / base).toFixed(3))
  const lotOf = (id: string) => build.value?.lots.find((lot) => lot.id === id)

  function amountKind(lot: string): { kind: Kind; unit?: string; base: number } {
    const unit = lotOf(lot)?.unit
    if (!unit) return { kind: 'mass', unit: units.value.mass.name, base: units.value.mass.base }
    if (unit === 'piece') return { kind: 'pieces', base: 1 }
    const shown = unit === 'dm2' ? units.value.area : units.value.run
    return { kind: LOT_KINDS[unit], unit: shown.name, base: shown.base }
  }

  function start(): Fields {
    const use = item?.uses[0]
    const lot = use?.lot ?? ''
    const figure = use ? use.amount : item?.stated_g
    const at = item?.station
    const length = units.value.length.base
    return {
      name: item?.name ?? '',
      assembly: item?.assembly ?? '',
      pedigree: item?.pedigree ?? 'guess',
      lot,
      amount: figure === null || figure === undefined ? '' : plain(figure, amountKind(lot).base),
      pieces: String(item?.pieces ?? 1),
      of: 'all',
      x: at ? plain(at.x_mm, length) : '',
      reference: at?.reference ?? 'nose',
      y: at ? plain(at.y_mm, length) : '',
      z: at ? plain(at.z_mm, length) : '',
      option: item?.option ?? false,
    }
  }

  const fields = reactive(start())
  const amountUnit = computed(() => amountKind(fields.lot).unit ?? 'pieces')

  async function read(
    field: string,
    text: string,
    kind: Kind,
    unit?: string,
  ): Promise<number | null> {
    if (!text.trim()) return null
    try {
      return await understand(text, kind, unit)
    } catch (error) {
      throw new Error(`${field}: ${whyNot(error)}`)
    }
  }

  /** The station; one that lies off the plane is asked about once. */
  let sure = ''
  async function placed(unit: string): Promise<number | null> {
    const text = fields.x.trim()
    if (!text) return null
    const of = { measure: 'station', build: build.value?.id } as const
    const told = await understood(text, 'station', unit, of).catch((error: unknown) => {
      throw new Error(`Station: ${whyNot(error)}`)
    })
    if (told.asked && fields.reference === 'nose' && sure !== text) {
      sure = text
      const better = told.asked.instead_mm
      const instead = better === null ? '' : ` (${plain(better, units.value.length.base)} ${unit}?)`
      throw new Error(`Station: ${text} lies off the plane${instead}; Enter again if it is meant`)
    }
    return told.value
  }

  /** The part as typed; undefined, with words in `wrong`, when something in it cannot be read. */
  async function part(): Promise<NewItem | undefined> {
    wrong.value = ''
    try {
      if (!fields.name.trim()) throw new Error('Name: give the part a name')
      const { kind, unit } = amountKind(fields.lot)
      const length = units.value.length.name
      const amount = await read(fields.lot ? 'How much' : 'Mass', fields.amount, kind, unit)
      const pieces = await read('Pieces', fields.pieces, 'pieces')
      const x = await placed(length)
      const y = await read('Side', fields.y, 'station', length)
      const z = await read('Height', fields.z, 'station', length)
      const count = Math.max(1, Math.round(pieces ?? 1))
      const whole = amount === null ? null : amount * (fields.of === 'each' ? count : 1)
      const made = fields.lot && whole !== null
      return {
        ...item,
        name: fields.name.trim(),
        assembly: fields.assembly.trim(),
        pedigree: fields.pedigree,
        stated_g: made ? (item?.uses.length ? item.stated_g : null) : whole,
        uses: made ? [{ lot: fields.lot, amount: whole }, ...(item?.uses.slice(1) ?? [])] : [],
        pieces: count,
        station:
          x === null
            ? null
            : {
                x_mm: x,
                y_mm: y ?? 0,
                z_mm: z ?? 0,
                reference: fields.reference,
                doubt_mm: item?.station?.doubt_mm ?? null,
              },
        option: fields.option,
      }
    } catch (error) {
      wrong.value = (error as Error).message
      return undefined
    }
  }

  /** Ready for the next part, which starts plain: nothing carried over changes what its figure
   * means. Only its assembly stays. */
  function next() {
    Object.assign(fields, { ...start(), assembly: fields.assembly })
  }

  /** How many times what is typed counts, said in sight; empty where it counts once. */
  const multiplied = computed(() => {
    const count = Math.round(Number(fields.pieces.replace(',', '.')))
    if (!(count > 1) || !fields.amount.trim()) return ''
    const amount = Number(fields.amount.replace(',', '.'))
    if (fields.of === 'all') return `${fields.amount} ${amountUnit.value} for all ${count}`
    return Number.isFinite(amount)
      ? `${count} × ${fields.amount} = ${+(count * amount).toFixed(3)} ${amountUnit.value}`
      : `${count} × ${fields.amount}`
  })

  return { fields, wrong, amountUnit, multiplied, part, next }
}
