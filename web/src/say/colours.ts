import type { Part } from '../api/client'

export type Colour = NonNullable<Part['colour']>

/** The colours that a part is painted or covered in, as they are drawn. */
export const COLOURS: Record<Colour, string> = {
  white: '#fbfaf6',
  black: '#2a2723',
  grey: '#9b9790',
  brown: '#8a5a34',
  red: '#c23b2e',
  orange: '#e2802b',
  yellow: '#e9c53d',
  green: '#4f8a4a',
  blue: '#3b6ea8',
  violet: '#7a5590',
  pink: '#dc8fa6',
}
