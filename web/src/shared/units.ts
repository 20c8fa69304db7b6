import { computed, ref, watch } from 'vue'

export type UnitChoice = 'metric' | 'imperial' | 'metric-m2'

interface Unit {
  name: string
  /** How many base units make one of these. */
  base: number
  digits: number
}

type Shown = 'mass' | 'length' | 'area' | 'loading' | 'thrust' | 'run'

const OUNCE = 28.349523125
const FOOT = 304.8

const METRIC: Record<Shown, Unit> = {
  mass: { name: 'g', base: 1, digits: 1 },
  length: { name: 'mm', base: 1, digits: 0 },
  area: { name: 'dm²', base: 1, digits: 2 },
  loading: { name: 'g/dm²', base: 1, digits: 1 },
  thrust: { name: 'gf', base: 1, digits: 0 },
  run: { name: 'm', base: 1, digits: 2 },
}

const UNITS: Record<UnitChoice, Record<Shown, Unit>> = {
  metric: METRIC,
  'metric-m2': { ...METRIC, loading: { name: 'kg/m²', base: 10, digits: 2 } },
  imperial: {
    mass: { name: 'oz', base: OUNCE, digits: 2 },
    length: { name: 'in', base: 25.4, digits: 2 },
    area: { name: 'ft²', base: FOOT ** 2 / 1e4, digits: 2 },
    loading: { name: 'oz/ft²', base: OUNCE / (FOOT ** 2 / 1e4), digits: 1 },
    thrust: { name: 'oz', base: OUNCE, digits: 1 },
    run: { name: 'ft', base: FOOT / 1e3, digits: 2 },
  },
}

export const UNIT_CHOICES: { value: UnitChoice; title: string }[] = [
  { value: 'metric', title: 'g, mm, g/dm²' },
  { value: 'metric-m2', title: 'g, mm, kg/m²' },
  { value: 'imperial', title: 'oz, in, oz/ft²' },
]

const kept = localStorage.getItem('oaken-scale-units') as UnitChoice | null
const choice = ref<UnitChoice>(kept && kept in UNITS ? kept : 'metric')
watch(choice, (value) => localStorage.setItem('oaken-scale-units', value))

/** The chosen units, and numbers written in them. Values come in base units: g, mm, dm2, gf, m. */
export function useUnits() {
  const units = computed(() => UNITS[choice.value])

  function number(value: number, kind: Shown, digits = units.value[kind].digits): string {
    const text = (value / units.value[kind].base).toFixed(digits)
    return /^-0(\.0*)?$/.test(text) ? text.slice(1) : text.replace('-', '−')
  }

  function quantity(value: number, kind: Shown, digits?: number): string {
    return `${number(value, kind, digits)} ${units.value[kind].name}`
  }

  /** How a lot's constant is shown: so much of it in one of the unit, and what that is called. */
  function rate(unit: 'dm2' | 'm' | 'piece'): { name: string; span: number } {
    const { mass, area, run } = units.value
    if (unit === 'piece') return { name: `${mass.name} each`, span: 1 }
    const per = unit === 'dm2' ? area : run
    return { name: `${mass.name}/${per.name}`, span: per.base }
  }

  /** A lot's constant [g per dm2, m or piece] as a number in the chosen units. */
  function perUnit(constant: number, unit: 'dm2' | 'm' | 'piece', digits = 2): string {
    return number(constant * rate(unit).span, 'mass', digits)
  }

  return { choice, units, number, quantity, rate, perUnit }
}
