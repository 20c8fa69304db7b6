import type { NoteKind } from '../api/client'

/** The kinds of a note, as they are chosen and shown. */
export const NOTE_KINDS: { value: NoteKind; title: string }[] = [
  { value: 'note', title: 'note' },
  { value: 'wish', title: 'for the next one' },
  { value: 'reminder', title: 'reminder' },
  { value: 'went_well', title: 'went well' },
]
