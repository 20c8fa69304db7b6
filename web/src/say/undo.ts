import type { Touched } from '../api/client'

/** What each list of a build holds, one of it. */
const ONE: Record<string, string> = {
  lots: 'a lot',
  parts: 'a part',
  surfaces: 'a surface',
  bodies: 'a body',
  bays: 'a bay',
  scales: 'a scale',
  containers: 'a container',
  loadouts: 'a loadout',
  targets: 'a target',
  joints: 'a joint',
  diary: 'an entry of the diary',
  checks: 'a check',
  weighings: 'a reading',
  runs: 'a run',
  flights: 'a flight',
  controls: 'a control',
  throws: 'a throw',
  ticks: 'a tick',
  notes: 'a note',
  own_lines: 'a line of your own',
  ballast: 'the ballast',
  allowance: 'what is still to come',
  reference_build: 'what it is compared with',
  day: 'the order of the day',
  power: 'the drive',
  motor: 'the motor',
  motors: 'how many motors',
  controller: 'the controller',
  propellers: 'a propeller',
  packs: 'a pack',
  regulator: 'the regulator',
  plug_a: 'what the plug stands',
  wire_a: 'what the wire stands',
  level_throttle: 'the throttle in level flight',
  full_share: 'how much of it is at full throttle',
  stand: 'the stand',
  stances: 'how it is set',
  thrust: 'the thrust',
  budget: 'the budget',
  name: 'the name',
  purpose: 'what it is for',
  layout: 'how it is laid out',
  plan_mark: "the plan's mark",
  finished_at: 'whether it is finished',
}

/** What follows from something else that was done, and is not told by itself. */
const ALONG = ['ballast', 'stances', 'habits', 'allowance', 'diary']

type Weight = (grams: number) => string

function one(each: Touched, weight: Weight): string {
  const kind = ONE[each.field] ?? 'a figure'
  if (each.field === 'weighings')
    return each.how === 'added' ? `the reading of ${weight(each.grams ?? 0)}` : kind
  const name = each.name || kind
  if (!each.name && each.how === 'changed') return kind
  return `${name} ${each.how}`
}

/** What was taken back, or made again, in one sentence; `weight` writes a mass as it is shown. */
export function whatWasTurned(way: 'undo' | 'redo', touched: Touched[], weight: Weight): string {
  const told = touched.filter((each) => !ALONG.includes(each.field))
  const shown = (told.length ? told : touched).map((each) => one(each, weight))
  const rest = shown.length - 3
  const list = shown.slice(0, 3).join(', ') + (rest > 0 ? ` and ${rest} more` : '')
  return `${way === 'undo' ? 'Taken back' : 'Made again'}: ${list || 'the last change'}.`
}
