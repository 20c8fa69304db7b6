import type { Control, ControlTold, LastChange, ReadyLine, Schemas, Seen } from '../api/client'
import { fixed, plainly, useUnits } from '../shared/units'
import { useBalanceWords } from './balance'
import { dayOf } from './dates'

type Advice = Schemas['Advice']
type Reason = NonNullable<ReadyLine['reason']>

export const SEEN: Record<Seen, string> = {
  good: 'level, settles',
  stalls: 'rises, stalls',
  dives: 'dives',
  turns_left: 'turns left',
  turns_right: 'turns right',
  twitchy: 'twitchy, tucks',
  left_under_power: 'left, under power',
  right_under_power: 'right, under power',
  up_with_throttle: 'nose up with throttle',
  wallows: 'wallows, slides',
}

/** A mile an hour [m/s]. */
export const MPH_M_S = 0.44704

/** The words for every throw, and those that only a motor or a closer look brings. */
export const OFTEN: Seen[] = ['good', 'stalls', 'dives', 'turns_left', 'turns_right', 'twitchy']
export const SELDOM: Seen[] = [
  'left_under_power',
  'right_under_power',
  'up_with_throttle',
  'wallows',
]

export const CONTROL_KINDS: Record<Control['kind'], string> = {
  elevator: 'elevator',
  aileron: 'aileron',
  elevon: 'elevon',
  rudder: 'rudder',
  ruddervator: 'V-tail half',
  flap: 'flap',
  tab: 'bendable tab',
}

/** Whether a control goes left and right rather than up and down. */
export function goesSideways(control: Pick<Control, 'kind' | 'surface'>, fins: Set<string>) {
  return control.kind === 'rudder' || fins.has(control.surface)
}

const STICK = {
  back: 'Stick back',
  right: 'Stick right',
  rudder_right: 'Rudder stick right',
  flap: 'Flaps out',
}
const GOES = {
  up: 'trailing edge up',
  down: 'trailing edge down',
  right: 'trailing edge to the right',
  right_up: 'right one up, left one down',
  right_down: 'right one down, left one up',
}

/** What must move which way where nobody has drawn the controls, seen from behind. */
const STEERING: Record<string, string> = {
  tail: 'Stick back: elevator up. Stick right: right aileron up, left one down. Rudder stick right: rudder to the right',
  canard:
    'Stick back: the elevator ahead of the wing down. Stick right: right aileron up, left one down. Rudder stick right: rudder to the right',
  elevons: 'Stick back: both up. Stick right: right one up, left one down',
}

/** What a control must do, seen from behind, one sentence for each way of the stick. */
export function motionWords(told: ControlTold | undefined): string {
  return (told?.motions ?? []).map((each) => `${STICK[each.stick]}: ${GOES[each.goes]}`).join('. ')
}

const TITLES: Record<ReadyLine['kind'], string> = {
  doubt: 'No reading is doubtful',
  weight: 'It weighs what it may',
  balance: 'It balances',
  straight: 'Look along it: straight, no twist',
  fixed: 'Everything is fixed',
  ballast: 'Ballast cannot come loose',
  leads: 'Leads reach, and are clear of all that moves',
  control: '',
  controls: 'Every control: the right way, and far enough',
  tabs: 'Tabs are set as written',
  own: '',
  propeller: 'Propeller tight, whole, the right way round',
  pack: 'Pack full, not puffed, held',
  range: 'Range is good',
  wind: 'The wind is right',
  people: 'People are behind you, the line is clear',
  place: 'Place and rules',
}

const CAUTIONS: Partial<Record<ReadyLine['kind'], string>> = {
  straight: 'Tail level with the wing, fins true; what is twisted cannot be trimmed out',
  ballast: 'Taped for the first flights, then fixed for good',
  leads: 'Move every control to its end and look inside',
  propeller: 'Nobody in its disc, eyes covered, the plane held down',
  pack: 'Right cell count; never a puffed or crashed one; connect it last',
  range: 'Aerial clear of wires; walk as far as the maker says',
  people: 'Nobody ahead, nobody under it',
  place: 'Height, place and registration: ask the local authority, and the club',
}

/** The field's words, in the chosen units. */
export function useFieldWords() {
  const { number, quantity, units } = useUnits()
  const { done } = useBalanceWords()
  const metric = () => units.value.length.name === 'mm'

  /** A setting of a trailing edge: "1 mm up", "½ mm left". */
  function setting(mm: number, sideways: boolean): string {
    if (!mm) return '0'
    const way = sideways ? (mm > 0 ? 'right' : 'left') : mm > 0 ? 'up' : 'down'
    return `${small(Math.abs(mm))} ${way}`
  }

  /** A small length, in halves of a mm where that is what it is. */
  function small(mm: number): string {
    if (!metric()) return `${fixed(mm / 25.4, 3)} in`
    const whole = Math.floor(mm)
    if (mm === whole) return `${whole} mm`
    return mm - whole === 0.5 ? `${whole || ''}½ mm` : `${plainly(mm)} mm`
  }

  const far = (m: number) => quantity(m, 'run', 1)
  const wind = (m_s: number) =>
    metric() ? `${fixed(m_s, 1)} m/s` : `${fixed(m_s / MPH_M_S, 0)} mph`
  const sink = (m_s: number) => quantity(m_s, 'speed', 'fine')

  function clock(at: string | null): string {
    if (!at) return ''
    const day = new Date(at)
    const today = new Date().toDateString() === day.toDateString()
    const time = day.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
    return today
      ? time
      : `${day.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${time}`
  }

  function title(line: ReadyLine, control: Control | undefined): string {
    if (line.kind === 'own') return line.subject
    if (line.kind === 'control')
      return `${control?.name ?? line.subject}: the right way, and far enough`
    if (line.kind === 'balance' && line.subject) return `${TITLES.balance} with this pack`
    return TITLES[line.kind]
  }

  function caution(
    line: ReadyLine,
    control: Control | undefined,
    told: ControlTold | undefined,
    wind_m_s: number | null,
    tabs: string,
    sideways: boolean,
  ): string {
    if (line.kind === 'control') {
      const [one, other] = sideways ? ['right', 'left'] : ['up', 'down']
      const travel = [
        control?.up_mm != null && `${small(control.up_mm)} ${one}`,
        control?.down_mm != null && `${small(control.down_mm)} ${other}`,
      ].filter(Boolean)
      return [motionWords(told), travel.join(', ')].filter(Boolean).join('. ')
    }
    if (line.kind === 'tabs') return tabs
    if (line.kind === 'controls') return STEERING[line.subject] ?? ''
    if (line.kind === 'wind')
      return wind_m_s === null
        ? 'Throw into it'
        : `Under ${wind(wind_m_s)}, a third of its stall speed; into it`
    const held = line.parts.length ? `${line.parts.join(', ')}. ` : ''
    if (line.kind === 'fixed')
      return `${held}Pull at each: ${line.subject ? 'servos, receiver, hatch, wing' : 'wing, tail, nose'}`
    return `${held}${CAUTIONS[line.kind] ?? ''}`
  }

  const DONE: Record<string, string> = {
    repair: 'repaired',
    replace: 'replaced',
    trim: 'trimmed',
    retire: 'taken off',
    move: 'moved',
  }

  /** How far a verdict's figure lies beyond its range. */
  function beyond({ amount, unit }: Reason): string {
    if (amount == null) return ''
    const size = Math.abs(amount)
    if (unit === 'g') return `, ${quantity(size, 'mass')} ${amount > 0 ? 'over' : 'short'}`
    const far = unit === 'percent_mac' ? `${fixed(size, 1)} % MAC` : quantity(size, 'length')
    return `, ${far} ${amount > 0 ? 'aft' : 'forward'}`
  }

  /** Why a line is open, from what is known of it. */
  function why(reason: Reason): string {
    const at = clock(reason.at)
    const said = reason.words ? `: ${reason.words}` : ''
    switch (reason.why) {
      case 'never':
        return 'not looked at yet'
      case 'unticked':
        return `opened by hand ${at}`
      case 'other_loadout':
        return `last ticked with ${reason.subject}`
      case 'happened':
        return `opened again: ${DONE[reason.subject] ?? reason.subject} ${at}${said}`
      case 'landed_hard':
        return `opened again: landed hard ${at}${said}`
      case 'added':
        return `opened again: ${reason.subject} was added`
      case 'taken_off':
        return `opened again: ${reason.subject} was taken off`
      case 'moved':
        return `opened again: ${reason.subject} was moved ${small(Math.round(reason.amount ?? 0))}`
      case 'asks_otherwise':
        return 'opened again: it is set otherwise now'
      case 'seen_nowhere':
        return 'opened again: the plane was changed in the workshop meanwhile'
      case 'another_day':
        return `another day: last ticked ${at}`
      case 'verdict':
        return `${reason.subject}${beyond(reason)}`
      case 'not_told':
        return 'cannot be told yet'
      case 'no_target':
        return 'nobody said where it is to balance'
      case 'not_checked':
        return 'never checked by hand as it flies'
      case 'not_checked_since':
        return `not checked since ${at}${reason.at ? `: ${done({ ...reason, at: reason.at })}` : ''}`
      case 'doubtful':
        return `${reason.amount} ${reason.amount === 1 ? 'reading does' : 'readings do'} not fit`
    }
  }

  /** What to do next, in two pieces: what, and because of what. */
  function advice(
    told: Advice,
    named: (control: string) => string,
    sideways: (control: string) => boolean,
  ): { what: string; because: string } {
    const to = told.to_mm ?? 0
    const half = told.halved ? ', half as far back: the last change went too far' : ''
    const aft = told.amount != null ? quantity(told.amount, 'length') : ''
    const what = {
      look_straight: 'Look along it before anything is bent',
      cg_forward: `Move the balance ${aft} forward first`,
      cg_aft: `Move the balance ${aft} back first`,
      stop: 'Stop. Move the balance forward before the next throw',
      balance_sideways: `Add ${told.amount != null ? quantity(told.amount, 'mass') : 'a little'} at the ${told.side} tip`,
      set: told.control
        ? `Set ${named(told.control)} to ${setting(to, sideways(told.control))}${half}`
        : '',
      motor_line: `Point the motor a little ${told.side}`,
      lower_cg: 'Put the pack lower',
      more_fin: 'More fin behind the balance, or less side area ahead of it',
      throw: 'Throw it once, gently, into the wind',
      leave: 'Leave it: find out whether it is better or luck',
      bend_a_tab: `Bend a little ${told.side}; put a tab on the drawing to have it counted`,
    }[told.do]
    const because = {
      cg_behind: 'it balances behind its range, and no tab cures that',
      cg_ahead: 'it balances ahead of its range',
      too_much_up: 'it rises and stalls, its balance in range: too much up',
      too_much_down: 'it dives, its balance in range: too much down',
      cg_too_far_aft: 'twitchy, tucking: the balance is too far back, whatever the sums say',
      heavy_side: 'it turns towards its heavy side',
      warp_or_fin: 'it turns with the power off: a warp, or the fin off centre',
      side_thrust: 'it turns under power only: torque',
      thrust_line_low: 'its nose rises with throttle: the thrust line passes below the balance',
      little_fin: 'it wallows and slides: little fin behind the balance',
      in_trim: 'level, straight, settles',
      not_straight:
        'nobody has looked since it was last touched, and a twist cannot be trimmed out',
      nothing_seen: 'nothing was seen of it yet with this loadout',
    }[told.cause]
    return { what, because }
  }

  /** Whether a change helped: better, worse, or as good as luck, and how many throws would tell. */
  function change(told: LastChange, sideways: boolean): string {
    const { better, difference, first, second, more } = told.compared
    const percent = Math.round(100 * Math.max(better, 1 - better))
    const by = Math.abs(second - first)
    const amount = told.measure === 'seconds' ? `${fixed(by, 1)} s` : far(by)
    const from = setting(told.from_mm, sideways)
    const to = setting(told.to_mm, sideways)
    const which =
      difference >= 0
        ? `${to} goes ${amount} further than ${from}`
        : `${from} goes ${amount} further than ${to}`
    if (more === 0) return `${which}: better, not luck (${percent} %)`
    if (more === null)
      return `${which}: as good as luck (${percent} %). No number worth throwing would tell: keep the one you like`
    return `${which}: as good as luck so far (${percent} %). ${more} more ${more === 1 ? 'throw' : 'throws'} in turns would tell`
  }

  return {
    setting,
    small,
    far,
    wind,
    sink,
    clock,
    day: dayOf,
    title,
    caution,
    why,
    advice,
    change,
    number,
    quantity,
  }
}
