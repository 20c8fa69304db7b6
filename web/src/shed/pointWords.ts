/** What is told of a plane that might be begun. */
export const FIGURES = {
  auw: 'all-up weight',
  wing_loading: 'wing loading',
  thrust_to_weight: 'thrust-to-weight',
  power_loading: 'power loading',
  balance: 'balance, the pack slid',
  minutes: 'minutes level on the first pack',
} as const
export type FigureKind = keyof typeof FIGURES

/** A chance in per cent. */
export const per = (chance: number | null) =>
  chance === null ? '–' : `${Math.round(100 * chance)} %`
