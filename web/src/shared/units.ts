import { computed, ref, watch } from 'vue'
import type { Kind } from '../api/client'

interface Unit {
  name: string
  /** How many base units make one of these. */
  base: number
  digits: number
  /** As exact as a gram is among grams: an ounce of 28 wants a tenth. */
  whole?: number
  /** As exact as a tenth is among millimetres: a cut is made by it. */
  fine?: number
}
/** How exact a figure is shown where not as usual: by a name that means as much in any unit. */
type Digits = number | 'fine'

export type Shown = 'mass' | 'length' | 'area' | 'loading' | 'thrust' | 'run' | 'speed'

/** A light plane's tenths are told: twice so many times as heavy as what a doubt is written as. */
const MUCH = 400
const OUNCE = 28.349523125
const FOOT = 304.8
const FT2 = FOOT ** 2 / 1e4

/** Masses, lengths and areas are chosen each by itself; what hangs on two of them follows. */
const MASSES = {
  g: {
    mass: { name: 'g', base: 1, digits: 1, whole: 0 },
    thrust: { name: 'gf', base: 1, digits: 0 },
  },
  oz: {
    mass: { name: 'oz', base: OUNCE, digits: 2, whole: 1 },
    thrust: { name: 'oz', base: OUNCE, digits: 1 },
  },
} satisfies Record<string, Partial<Record<Shown, Unit>>>
const LENGTHS = {
  mm: {
    length: { name: 'mm', base: 1, digits: 0, fine: 1 },
    run: { name: 'm', base: 1, digits: 2 },
    speed: { name: 'm/s', base: 1, digits: 1, fine: 2 },
  },
  in: {
    length: { name: 'in', base: 25.4, digits: 2 },
    run: { name: 'ft', base: FOOT / 1e3, digits: 2 },
    speed: { name: 'ft/s', base: FOOT / 1e3, digits: 1 },
  },
} satisfies Record<string, Partial<Record<Shown, Unit>>>
const PER_DM2 = { name: 'g/dm²', base: 1, digits: 1 }
const PER_M2 = { name: 'kg/m²', base: 10, digits: 2 }
const PER_FT2 = { name: 'oz/ft²', base: OUNCE / FT2, digits: 1 }
const AREAS = {
  dm2: { area: { name: 'dm²', base: 1, digits: 2 }, loading: PER_DM2 },
  m2: { area: { name: 'dm²', base: 1, digits: 2 }, loading: PER_M2 },
  ft2: { area: { name: 'ft²', base: FT2, digits: 2 }, loading: PER_FT2 },
  in2: { area: { name: 'in²', base: FT2 / 144, digits: 1 }, loading: PER_FT2 },
} satisfies Record<string, Partial<Record<Shown, Unit>>>

export interface UnitChoice {
  mass: keyof typeof MASSES
  length: keyof typeof LENGTHS
  area: keyof typeof AREAS
}

export const PRESETS: { value: string; title: string; units: UnitChoice }[] = [
  { value: 'metric', title: 'g, mm, g/dm²', units: { mass: 'g', length: 'mm', area: 'dm2' } },
  { value: 'metric-m2', title: 'g, mm, kg/m²', units: { mass: 'g', length: 'mm', area: 'm2' } },
  { value: 'mixed', title: 'g, in, oz/ft²', units: { mass: 'g', length: 'in', area: 'ft2' } },
  { value: 'imperial', title: 'oz, in, oz/ft²', units: { mass: 'oz', length: 'in', area: 'ft2' } },
]
export const CHOICES = {
  mass: [
    { value: 'g', title: 'grams' },
    { value: 'oz', title: 'ounces' },
  ],
  length: [
    { value: 'mm', title: 'millimetres' },
    { value: 'in', title: 'inches' },
  ],
  area: [
    { value: 'dm2', title: 'dm², loading in g/dm²' },
    { value: 'm2', title: 'dm², loading in kg/m²' },
    { value: 'ft2', title: 'ft², loading in oz/ft²' },
    { value: 'in2', title: 'in², loading in oz/ft²' },
  ],
} as const
const METRIC: UnitChoice = { mass: 'g', length: 'mm', area: 'dm2' }

function kept(): UnitChoice {
  const text = localStorage.getItem('oaken-scale-units') ?? 'metric'
  const preset = PRESETS.find((each) => each.value === text)
  if (preset) return { ...preset.units }
  try {
    const own = JSON.parse(text) as UnitChoice
    return own.mass in MASSES && own.length in LENGTHS && own.area in AREAS ? own : METRIC
  } catch {
    return METRIC
  }
}
const chosen = ref<UnitChoice>(kept())
watch(chosen, (value) => localStorage.setItem('oaken-scale-units', JSON.stringify(value)), {
  deep: true,
})

/** The mark between whole numbers and their parts: as the browser's language has it, or as chosen. */
const usual = (1.5).toLocaleString(navigator.language).includes(',') ? ',' : '.'
const mark = ref<',' | '.'>((localStorage.getItem('oaken-scale-mark') as ',' | '.' | null) ?? usual)
watch(mark, (value) => localStorage.setItem('oaken-scale-mark', value))
export const useDecimalMark = () => mark

/** A number written with the decimal mark that is used here. */
export function decimal(text: string): string {
  return mark.value === ',' ? text.replace('.', ',') : text
}

/** A number with so many digits behind the mark, and a minus of its own where it is below zero. */
export function fixed(value: number, digits: number): string {
  const text = decimal(value.toFixed(digits))
  return /^-0([.,]0*)?$/.test(text) ? text.slice(1) : text.replace('-', '−')
}

/** An inch [mm]: propellers are sold by them. */
export const INCH_MM = 25.4

/** A number with as many digits as it needs, `most` of them behind the mark at most. */
export function plainly(value: number, most = 2): string {
  return decimal(String(+value.toFixed(most)))
}

/** One digit more than usual where twice a doubt would be written as nothing without it. */
export function finer(sd: number, digits: number): number {
  return sd > 0 && !/[1-9]/.test(fixed(2 * sd, digits)) ? digits + 1 : digits
}

/** By how much more or less, in per cent. */
export function percent(share: number): string {
  const round = Math.round(100 * share)
  return `${round > 0 ? '+' : round < 0 ? '−' : '±'}${Math.abs(round)} %`
}

/** How a lot's constant is shown and typed: its unit and that unit's size in the base unit. */
interface Rate {
  name: string
  kind: Kind
  unit: string
  base: number
  digits: number
}

/** The chosen units, and numbers written in them. Values come in base units: g, mm, dm2, gf, m, m/s. */
export function useUnits() {
  const units = computed<Record<Shown, Unit>>(() => ({
    ...MASSES[chosen.value.mass],
    ...LENGTHS[chosen.value.length],
    ...AREAS[chosen.value.area],
  }))

  function number(value: number, kind: Shown, digits?: Digits): string {
    const unit = units.value[kind]
    const many = typeof digits === 'string' ? unit[digits] : digits
    return fixed(value / unit.base, many ?? unit.digits)
  }

  function quantity(value: number, kind: Shown, digits?: Digits): string {
    return `${number(value, kind, digits)} ${units.value[kind].name}`
  }

  /** With how many digits a mass is shown that has so much doubt [g, one sigma], or another kind of
   * figure: as usual, in wholes of a mass, but finer where its doubt would be written as nothing. */
  function exactness(sd: number | null | undefined, kind: Shown = 'mass'): number {
    const { base, digits, whole } = units.value[kind]
    return finer((sd ?? 0) / base, kind === 'mass' ? (whole ?? digits) : digits)
  }

  /** How exact what is left or over is shown [g, one sigma]: finer too where it would be nothing. */
  function exactLeft(grams: number, sd_g?: number | null): number {
    return exactness(Math.min(Math.abs(grams) / 2, sd_g || Infinity))
  }

  /** How exact a mass [g] is shown whose doubt is not told beside it: finer where a whole is much. */
  function inProportion(grams: number): number {
    return exactness(Math.abs(grams) / MUCH)
  }

  /** A mass that somebody stated, a limit, with as many digits as it needs. */
  function stated(grams: number): string {
    return plainly(grams / units.value.mass.base, units.value.mass.digits)
  }

  /** About so much as somebody would type it, for what a field is like: "40", or "1.6" in inches. */
  function example(value: number, kind: Shown): string {
    const { base } = units.value[kind]
    return plainly(value / base, base === 1 ? 0 : 1)
  }

  /** How a lot's constant is shown: so much of it in one of the unit, what that is called, and with
   * as many digits as say as much as a hundredth of a gram per dm², m or piece. */
  function rate(unit: 'dm2' | 'm' | 'piece'): Rate {
    const { mass, area, run } = units.value
    const per = unit === 'dm2' ? area : unit === 'm' ? run : { name: '', base: 1 }
    const base = mass.base / per.base
    return {
      name: per.name ? `${mass.name}/${per.name}` : `${mass.name} each`,
      kind: unit === 'dm2' ? 'loading' : unit === 'm' ? 'per_run' : 'mass',
      unit: per.name ? `${mass.name}/${per.name}` : mass.name,
      base,
      digits: Math.max(0, 2 + Math.round(Math.log10(base))),
    }
  }

  /** A lot's constant [g per dm2, m or piece] as a number in the chosen units. */
  function perUnit(constant: number, unit: 'dm2' | 'm' | 'piece'): string {
    const { base, digits } = rate(unit)
    return fixed(constant / base, digits)
  }

  /** The preset that is chosen; "own" where it is none of them. */
  const choice = computed({
    get: () =>
      PRESETS.find(({ units: { mass, length, area } }) =>
        [
          mass === chosen.value.mass,
          length === chosen.value.length,
          area === chosen.value.area,
        ].every(Boolean),
      )?.value ?? 'own',
    set: (value: string) => {
      const preset = PRESETS.find((each) => each.value === value)
      if (preset) chosen.value = { ...preset.units }
    },
  })

  return {
    choice,
    chosen,
    units,
    number,
    quantity,
    exactness,
    exactLeft,
    inProportion,
    stated,
    example,
    rate,
    perUnit,
  }
}
