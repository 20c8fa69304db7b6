import { computed, reactive, ref, watch } from 'vue'
import type { Part, Kind, NewPart } from '../api/client'
import type { Colour } from '../say/colours'
import { sent } from '../shared/sent'
import { plainly, useDecimalMark, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'
import { understand, understood, whyNot } from '../shared/useQuantity'

export const PEDIGREES = [
  { value: 'guess', title: 'guess' },
  { value: 'listing', title: 'listing' },
  { value: 'calculated', title: 'calculated' },
  { value: 'joint', title: 'glue, paint' },
  { value: 'covering', title: 'tape, film' },
  { value: 'allowance', title: 'allowance' },
] as const

const LOT_KINDS = { dm2: 'area', m: 'run', piece: 'pieces' } as const

/** What is asked about where it is absurd for its kind. */
const ASKED = { mass: 'mass', area: 'area', run: 'run', station: 'station' } as const

export interface Fields {
  name: string
  assembly: string
  pedigree: Part['pedigree']
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
  colour: Colour | ''
}

/** One line of the parts list: what is typed in it, and the part that it makes. */
export function usePartLine(part?: Part) {
  const { build } = useBuild()
  const { units } = useUnits()
  const wrong = ref('')

  const plain = (value: number, base = 1) => plainly(value / base, 3)
  const lotOf = (id: string) => build.value?.lots.find((lot) => lot.id === id)

  function amountKind(lot: string): { kind: Kind; unit?: string; base: number } {
    const unit = lotOf(lot)?.unit
    if (!unit) return { kind: 'mass', unit: units.value.mass.name, base: units.value.mass.base }
    if (unit === 'piece') return { kind: 'pieces', base: 1 }
    const shown = unit === 'dm2' ? units.value.area : units.value.run
    return { kind: LOT_KINDS[unit], unit: shown.name, base: shown.base }
  }

  function start(): Fields {
    const use = part?.uses[0]
    const lot = use?.lot ?? ''
    const figure = use ? use.amount : part?.stated_g
    const at = part?.station
    const length = units.value.length.base
    return {
      name: part?.name ?? '',
      assembly: part?.assembly ?? '',
      pedigree: part?.pedigree ?? 'guess',
      lot,
      amount: figure === null || figure === undefined ? '' : plain(figure, amountKind(lot).base),
      pieces: String(part?.pieces ?? 1),
      of: 'all',
      x: at ? plain(at.x_mm, length) : '',
      reference: at?.reference ?? 'nose',
      y: at ? plain(at.y_mm, length) : '',
      z: at ? plain(at.z_mm, length) : '',
      option: part?.option ?? false,
      colour: part?.colour ?? '',
    }
  }

  const fields = reactive(start())
  /** What stood there when the hand came: a figure that nobody touched stays as exact as it was, and
   * is shown in other units where others are chosen. */
  let began = start()
  const isTouched = (...keys: (keyof Fields)[]) => keys.some((key) => fields[key] !== began[key])
  watch([units, useDecimalMark()], () => {
    const fresh = start()
    for (const key of ['amount', 'x', 'y', 'z'] as const)
      if (!isTouched(key)) fields[key] = fresh[key]
    began = fresh
  })
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

  /** A figure of the part; one that is absurd for its kind is asked about once. */
  const sure: Record<string, string> = {}
  async function meant(
    field: string,
    text: string,
    kind: keyof typeof ASKED,
    base: number,
    unit: string,
  ) {
    if (!text.trim()) return null
    const of = { measure: ASKED[kind], build: build.value?.id, lot: fields.lot || undefined }
    const all = await understood(text, kind, unit, of).catch((error: unknown) => {
      throw new Error(`${field}: ${whyNot(error)}`)
    })
    const isPlaced = kind === 'station' && fields.reference !== 'nose'
    if (all.asked && !isPlaced && sure[field] !== text) {
      sure[field] = text
      const better = all.asked.instead
      const instead = better === null ? '.' : `; ${plain(better, base)} ${unit}?`
      const off = kind === 'station' ? 'lies off the plane' : 'is unusual for one part'
      throw new Error(`${field}: ${text} ${off}${instead} Enter again if it is meant`)
    }
    return all.value
  }

  /** The part as typed; undefined, with words in `wrong`, when something in it cannot be read. */
  async function typedPart(): Promise<NewPart | undefined> {
    wrong.value = ''
    try {
      if (!fields.name.trim()) throw new Error('Name: give the part a name')
      const { kind, unit, base } = amountKind(fields.lot)
      const length = units.value.length.name
      const figure = fields.lot ? 'How much' : 'Mass'
      const isSame = part && !isTouched('amount', 'lot', 'of')
      const before = part?.uses[0]?.amount ?? part?.stated_g ?? null
      const amount = isSame
        ? before
        : kind in ASKED && unit
          ? await meant(figure, fields.amount, kind as keyof typeof ASKED, base, unit)
          : await read(figure, fields.amount, kind, unit)
      const pieces = await read('Pieces', fields.pieces, 'pieces')
      const { base: run } = units.value.length
      const at = part?.station
      const x =
        at && !isTouched('x', 'reference')
          ? at.x_mm
          : await meant('Station', fields.x, 'station', run, length)
      const y = at && !isTouched('y') ? at.y_mm : await read('Side', fields.y, 'station', length)
      const z = at && !isTouched('z') ? at.z_mm : await read('Height', fields.z, 'station', length)
      const count = Math.max(1, Math.round(pieces ?? 1))
      const whole = amount === null ? null : amount * (fields.of === 'each' ? count : 1)
      const made = fields.lot && whole !== null
      return {
        ...part,
        name: fields.name.trim(),
        assembly: fields.assembly.trim(),
        pedigree: fields.pedigree,
        stated_g: made ? (part?.uses.length ? part.stated_g : null) : whole,
        uses: made ? [{ lot: fields.lot, amount: whole }, ...(part?.uses.slice(1) ?? [])] : [],
        pieces: count,
        station:
          x === null
            ? null
            : {
                x_mm: x,
                y_mm: y ?? 0,
                z_mm: z ?? 0,
                reference: fields.reference,
                doubt_mm: at?.doubt_mm ?? null,
              },
        option: fields.option,
        colour: fields.colour || null,
      }
    } catch (error) {
      wrong.value = (error as Error).message
      return undefined
    }
  }

  /** Ready for the next part, which starts plain: nothing carried over changes what its figure
   * means. Only its assembly stays. */
  function next() {
    const anew = sent(fields)
    return () => anew({ ...start(), assembly: fields.assembly })
  }

  /** How many times what is typed counts, said in sight; empty where it counts once. */
  const multiplied = computed(() => {
    const count = Math.round(Number(fields.pieces.replace(',', '.')))
    if (!(count > 1) || !fields.amount.trim()) return ''
    const amount = Number(fields.amount.replace(',', '.'))
    if (fields.of === 'all') return `${fields.amount} ${amountUnit.value} for all ${count}`
    return Number.isFinite(amount)
      ? `${count} × ${fields.amount} = ${plainly(count * amount, 3)} ${amountUnit.value}`
      : `${count} × ${fields.amount}`
  })

  return { fields, wrong, amountUnit, multiplied, typedPart, next }
}
