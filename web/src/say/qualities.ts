import type { Lot } from '../api/client'

export type Quality = Lot['qualities'][number]

/** What matters when a material is chosen, as a builder says it. */
export const QUALITIES: Record<Quality, string> = {
  paper_peels: 'its paper comes off',
  paper_holds: 'its paper does not come off',
  soft: 'softer',
  brittle: 'brittle when dry',
  rubbery: 'rubbery when dry',
  shrinks: 'shrinks',
  drinks: 'drinks water',
}

/** Which of them may be said of which kind. */
export const SAID_OF: Partial<Record<Lot['kind'], Quality[]>> = {
  foam: ['paper_peels', 'paper_holds', 'soft', 'brittle', 'drinks'],
  adhesive: ['brittle', 'rubbery', 'shrinks'],
  film: ['shrinks', 'soft'],
  paint: ['brittle', 'rubbery', 'drinks'],
  tape: ['shrinks', 'rubbery'],
  wood: ['soft', 'brittle', 'drinks'],
  plywood: ['soft', 'drinks'],
}
