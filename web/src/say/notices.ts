import type { Assessment } from '../api/client'
import { fixed, useUnits } from '../shared/units'
import { useBuild } from '../shared/useBuild'

type Notice = Assessment['notices'][number]

/** What is told beside the figures, in sentences. */
export function useNoticeWords() {
  const { build, nameOf } = useBuild()
  const { quantity } = useUnits()

  const per = (share: number) => `${fixed(100 * Math.abs(share), 1)} %`
  const lotOf = (id: string | null) =>
    build.value?.lots.find((each) => each.id === id)?.name ?? id ?? ''
  const scaleOf = (id: string | null) =>
    build.value?.scales.find((each) => each.id === id)?.name ?? id ?? ''

  return function notice(told: Notice): string {
    const amount = told.amount ?? 0
    switch (told.code) {
      case 'negative_mass':
        return `The weighings contradict each other: ${nameOf(told.parts[0] ?? '')} would weigh ${quantity(amount, 'mass')}. One of the readings with it on the pan is wrong.`
      case 'strained_scale':
        return `The readings only agree if ${scaleOf(told.scale)} reads ${per(amount)} ${amount > 0 ? 'high' : 'low'}. One of them is probably wrong.`
      case 'damp':
        return `${lotOf(told.lot)} weighs ${per(amount)} ${amount > 0 ? 'more' : 'less'} than when it was first weighed: ${amount > 0 ? 'damp' : 'it has dried'}. Set one of the two aside.`
      case 'drift':
        return `${scaleOf(told.scale)} reads ${quantity(Math.abs(amount), 'mass')} ${amount > 0 ? 'more' : 'less'} of ${quantity(told.known_g ?? 0, 'mass')} than it did before: it has drifted. Tare it, and weigh the check weight again.`
      case 'cannot_be_assessed':
        return `Nothing can be told about this build as it is: ${told.fault}. Take back what was done last.`
    }
  }
}
