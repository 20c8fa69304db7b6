import type { Assessment } from '../api/client'

type Note = Assessment['fit']['notes'][number]

/** What does not fit, in words; `mm` says a length in the chosen unit. */
export function misfit(note: Note, name: (id: string) => string, mm: (by: number) => string) {
  const part = name(note.part)
  const other = name(note.other)
  const by = note.by_mm === null ? '' : mm(note.by_mm)
  const words: Record<Note['kind'], string> = {
    too_large: `${part} does not go into ${other}, however it lies: ${by} too large.`,
    not_together: `${part} goes into ${other} alone, but not with what else flies there.`,
    outside: `${part} sticks ${by} out of ${other}.`,
    slides_out: `${part} would slide ${by} out of ${other} at the end of its way.`,
    lead_short: `${part} does not reach ${other}: its lead is ${by} short where it sits farthest.`,
    too_near: `${part} sits near ${other}: ${by} farther apart would be better for its radio.`,
    in_disc: `${part} stands in the way of ${other}: ${by} away from its disc.`,
    at_control: `${part} lies where ${other} moves.`,
  }
  return words[note.kind]
}
