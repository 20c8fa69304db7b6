import type { Build, NewWeighing, Pan } from '../api/client'
import { chain, liesWithin } from '../shared/assemblies'
import { plainly, useUnits } from '../shared/units'

const SHOWN = { dm2: 'area', m: 'run' } as const

/** What was on a pan, in the builder's words. */
export function panWords(pan: NewWeighing['pan'] | Pan, build: Build | undefined): string {
  const { quantity } = useUnits()
  const loads = pan.loads ?? []
  const names = loads.map((load) => {
    const part = build?.parts.find((each) => each.id === load.part)
    const count = load.count ?? 1
    const times = count === 1 ? '' : ` × ${plainly(count * (part?.pieces ?? 1))}`
    return (part?.name ?? load.part) + times
  })
  for (const sample of pan.samples ?? []) {
    const lot = build?.lots.find((each) => each.id === sample.lot)
    const shown = lot && lot.unit !== 'piece' ? SHOWN[lot.unit] : undefined
    const amount = shown ? quantity(sample.amount, shown) : `${sample.amount} pieces`
    names.push(`${lot?.name ?? sample.lot}, ${amount}`)
  }
  if (pan.known_g) names.push(`check weight ${quantity(pan.known_g, 'mass')}`)
  if (names.length <= 2) return names.join(' and ')
  const whole = wholeAssembly(
    loads.map((load) => load.part),
    build,
  )
  return whole ?? `${names[0]} and ${names.length - 1} more`
}

function wholeAssembly(parts: string[], build: Build | undefined): string | undefined {
  const aboard = build?.parts.filter((part) => !part.retired) ?? []
  const first = aboard.find((part) => part.id === parts[0])?.assembly ?? ''
  const whole = chain(first).find((name) => {
    const members = aboard.filter((part) => liesWithin(part, name))
    return members.length === parts.length && members.every(({ id }) => parts.includes(id))
  })
  if (whole) return `${whole}, put together`
  if (aboard.length === parts.length) return 'The whole plane'
  return undefined
}
