import type { Kind, TargetKind } from '../api/client'

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

export const KINDS = Object.keys(METRICS) as TargetKind[]
