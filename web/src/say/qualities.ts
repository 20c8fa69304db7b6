import type { GlueCaution, Lot, Trait } from '../api/client'

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

/** What a builder likes of a material, as it reads when it is gained and when it is given up. */
export const TRAITS: Record<Trait, { gained: string; givenUp: string }> = {
  stiff: { gained: 'stiffness', givenUp: 'stiffness: it wants tape, film or a spar' },
  hinge: {
    gained: 'a paper that folds as a hinge',
    givenUp: 'the paper that folds as a hinge',
  },
  dry: {
    gained: 'no paper to drink water',
    givenUp: 'dry foam: paper drinks water and grows weak',
  },
  tough: { gained: 'a skin against dents', givenUp: 'the skin against dents and snaps' },
  shifts: { gained: 'time to shift it', givenUp: 'a second try: it grips where it touches' },
  'no fumes': {
    gained: 'no fumes',
    givenUp: 'clean air: it has fumes, so ventilate, gloves on',
  },
  undone: { gained: 'it can be undone', givenUp: 'taking it apart again' },
  quick: { gained: 'handled within minutes', givenUp: 'handling it within minutes' },
  strong: { gained: 'a joint as strong as the foam', givenUp: 'a joint as strong as the foam' },
}

/** What to mind with a glue. */
export const CAUTIONS: Record<GlueCaution, string> = {
  burns: 'The nozzle and the glue burn.',
  'gloves and air': 'Gloves, and air.',
  'one try, no flame': 'One try: it grips at once. Air, no flame.',
  'eyes and skin': 'Keep it from eyes and skin. Air.',
  foams: 'It foams: hold or weigh it down. Gloves.',
}
