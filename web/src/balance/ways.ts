/** How a balance is checked by hand. */
export const WAYS = [
  { value: 'support', title: 'Fingertips' },
  { value: 'feel', title: 'By feel' },
  { value: 'supports', title: 'Two supports' },
  { value: 'sides', title: 'Left and right' },
  { value: 'hang', title: 'Hang angle' },
] as const
export type Way = (typeof WAYS)[number]['value']
