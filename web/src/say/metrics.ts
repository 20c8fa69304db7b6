import type { Kind, Missing, TargetKind } from '../api/client'

interface MetricSaid {
  title: string
  /** At the head of a column. */
  short: string
  /** What a figure of it is read as where it is typed. */
  reads: Kind
  /** What it is shown in, where the builder chooses its unit. */
  shown?: 'mass' | 'loading'
  unit: string
  digits: number
}

/** The metrics as they are said, in the order in which they are told. */
export const METRICS: Record<TargetKind, MetricSaid> = {
  auw: {
    title: 'All-up weight',
    short: 'all up',
    reads: 'mass',
    shown: 'mass',
    unit: '',
    digits: 0,
  },
  wing_loading: {
    title: 'Wing loading',
    short: 'loading',
    reads: 'loading',
    shown: 'loading',
    unit: '',
    digits: 1,
  },
  thrust_to_weight: {
    title: 'Thrust-to-weight',
    short: 'thrust',
    reads: 'number',
    unit: '',
    digits: 2,
  },
  power_loading: {
    title: 'Power loading',
    short: 'power',
    reads: 'number',
    unit: 'W/kg',
    digits: 0,
  },
  balance: { title: 'Balance', short: 'balance', reads: 'number', unit: '%', digits: 1 },
}

/** What it takes to tell a metric that cannot be told yet. */
export const MISSING: Record<Missing, string> = {
  parts: 'add the parts on the Plan',
  wing: 'draw the wing on the Plan',
  stations: 'give the parts their stations on the Plan',
  thrust: 'say its drive in Power, or its thrust on the Plan',
  drive: 'list the drive in Power',
  driven: 'say its pack and propeller in Power',
  pack: 'say its pack in Power',
  pack_aboard: "none of the drive's packs is aboard; say in Power which part is which",
  propeller: 'say its propeller in Power',
  motor: 'thrown: it has no motor',
}

export const KINDS = Object.keys(METRICS) as TargetKind[]
