/** A key, and what it does. */
export type Key = [key: string, words: string]

const EVERYWHERE: Key[] = [
  ['1 to 8', 'the places of the rule; with Alt from the Bench and out of any field'],
  ['L', 'next loadout'],
  ['M', 'write a note into the notebook'],
  ['Ctrl Z', 'take the last change back; with Shift make it again'],
  ['Esc', 'put back what was there, or close what is open'],
  ['?', 'this sheet'],
]

/** The keys of each place, by its name on the rule. */
export const KEYS: Record<string, Key[]> = {
  shed: [['B', 'begin a build']],
  plan: [
    ['A', 'the next part; with Alt out of any field'],
    ['/', 'find a part in the table'],
    ['W', 'the drawing'],
    ['G', 'the targets'],
    ['P', 'the parts'],
    ['O', 'the loadouts'],
    ['F', 'what fits where'],
    ['D', 'the order of the day'],
    ['N', 'the notebook'],
    ['K', 'the scales'],
    ['[ and ]', 'the surface before, the next one'],
    ['arrows', 'move the corner in focus by 1 mm; with Shift by 10'],
    ['Enter', 'keep a line and begin the next'],
  ],
  stock: [['Tab', 'through the rack, the drawer and what is in focus']],
  bench: [
    ['Space', 'record the steady reading'],
    ['0 to 9', 'type a reading; Enter records it'],
    ['T', 'tare: zero the scale with what is on it'],
    ['N', 'put “weigh next” on the pan'],
    ['/', 'find a part; Enter puts it on the pan'],
    ['U', 'take back the last reading (it is set aside, never deleted)'],
    ['D', 'go to the next doubtful reading; Enter puts it right'],
    ['Esc', 'clear the pan'],
    ['J', 'start the clock of a joint that was just spread'],
  ],
  balance: [
    ['arrows', 'slide the part in focus by 1 mm; with Shift by 10'],
    ['Enter', 'keep where it was tried'],
    ['Esc', 'leave it where it was'],
  ],
  power: [
    ['S', 'switch the stand on or off'],
    ['Space', 'keep the point that is steady'],
  ],
  sheet: [['L', 'the page of the next loadout']],
  field: [['Tab', 'through the list; Space or Enter ticks the line in focus']],
}

/** The keys of a place, then those of all. */
export function keysOf(place: string): Key[] {
  return [...(KEYS[place] ?? []), ...(place === 'shed' ? EVERYWHERE.slice(-2) : EVERYWHERE)]
}
