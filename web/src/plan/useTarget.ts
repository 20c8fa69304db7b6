import { answered, api, type Opened, type Target, type TargetKind } from '../api/client'
import { METRICS } from '../say/metrics'
import { useBuild } from '../shared/useBuild'

/** What is aimed at, end for end: a figure alone, or one with where it comes from. */
export function useTarget() {
  const { id, send } = useBuild()

  const named = (kind: TargetKind, end: 'low' | 'high') =>
    `${METRICS[kind].title}, at ${end === 'low' ? 'least' : 'most'}`

  function aim(kind: TargetKind, end: 'low' | 'high', value: number | null, source?: string) {
    void send(
      (header) =>
        answered<Opened>(
          api.PUT('/api/v1/builds/{build_id}/targets/{kind}', {
            params: { path: { build_id: id.value, kind }, header },
            body: { end, value, ...(source ? { source } : {}) },
          }),
        ),
      () => named(kind, end),
    )
  }

  /** Another unit is the same range, converted; its source goes with it. */
  function measureIn(unit: Target['balance_unit']) {
    void send((header) =>
      answered<Opened>(
        api.PUT('/api/v1/builds/{build_id}/balance-target/unit', {
          params: { path: { build_id: id.value }, header },
          body: { unit },
        }),
      ),
    )
  }

  return { named, aim, measureIn }
}
