/** What each place is for, in a line; the Plan has one for each of its views. */
export const PLACES: Record<string, string> = {
  shed: 'Every build on one scale, with what it weighs and whether it holds its targets. Press one to work on it.',
  drawing:
    'The plane as lines, to one scale. Its wing area, its balance and its proportions follow from it.',
  targets: 'What the plane must hold. The rods on top measure it against these, all the time.',
  parts:
    'Everything that will be aboard, each with how its mass is known so far. Type a part on one line; weigh it on the Bench.',
  loadouts:
    'The ways it is flown: which pack, which payload. Each is weighed and balanced by itself.',
  fit: 'What goes into which bay with how much room, and whether each lead reaches wherever its pack slides.',
  day: 'The steps of the build in their order, with what can be done while glue sets, and what fits into the time that is left.',
  notebook: 'Notes, wishes for the next version, reminders, and what happened, in one stream.',
  scales:
    'What you weigh with: how fine it shows, how much it bears, and whether a known weight was put on it.',
  stock:
    'What the parts are cut from and what flies in them: weigh a square of a sheet, and every part cut from it is known better.',
  bench:
    'Put a part on the pan and read the scale: each reading narrows what the whole plane will weigh.',
  balance:
    'Where the plane hangs level and what would bring it there. Slide a part, and everything answers.',
  power: 'What motor, propeller and pack give and take, from listings until the stand has told.',
  sheet:
    'The plane on one page, labels for its parts, and its balance marks at full size: on paper, or as files.',
  field:
    'The list before flight, throws and flights, and what to change next. It works out of reach of the workshop.',
}

/** The line of a place by its name on the rule, and of a view of the Plan. */
export function lineOf(place: string, on: string): string {
  return (place === 'plan' ? PLACES[on in PLACES ? on : 'drawing'] : PLACES[place]) ?? ''
}

/** Words of the trade and of this bench, each explained where it stands. */
export const TERMS = {
  pieces:
    'How many of it are aboard. The figure is of all of them together, or of each; they are weighed together or one for all.',
  option:
    'Aboard in some loadouts only: a pack, a camera. What is no option is aboard in every one.',
  'still to come':
    'Glue, tape, paint and small things that nobody has listed yet: a share of all the rest, with a wide doubt. It shrinks as parts are listed.',
  station:
    'How far aft its own centre of gravity sits: from the nose, or from the root leading edge of the wing. Side and height are from the middle line. On one line it stands after at, left, right and up; slides says from where to where it may be moved.',
  'known by':
    'What its mass rests on until it is weighed. A guess is often 25 % off, a listing 5 %, what is calculated from a sheet 3 %, glue 40 %. Weighing ends it.',
  school:
    'Builders do not agree where a plane should balance. Each school is a rule with its reasons; take one as the target, or set a range of your own.',
  loadout:
    'One way of flying it: the airframe with one choice of packs and payloads aboard. Key L goes to the next.',
  lot: 'One batch of material with one constant: what an area, a length or a piece of it weighs. What one reading tells of it holds for every part made of it.',
  doubt:
    'The figure after ± is two sigma: 19 times of 20 the true value lies within. It comes from the readings and from how each part is known.',
  'mean aerodynamic chord':
    'The chord of a plain wing that would fly as this one does. Where a plane balances is told in per cent of it, from its leading edge.',
  'neutral point':
    'Where lift acts when the nose moves up or down. The centre of gravity must lie ahead of it; how far, in per cent of the chord, is the static margin.',
  'tail volume':
    'The tail’s area times its arm, over the wing’s area times its chord: how much the tail has to say.',
  'cubic loading':
    'Weight over wing area to the power of 1.5: how light a plane flies, whatever its size.',
  forecast:
    'What it will weigh when it is finished: what was weighed, what is listed, and what is still to come.',
} as const

export type Term = keyof typeof TERMS
