import { METRICS } from './metrics'

/** What the pages call a figure, by the last of its path in the build. */
const FIGURES: Record<string, string> = {
  low: 'at least',
  high: 'at most',
  thrust_gf: 'thrust',
  doubt_gf: 'doubt of the thrust',
  line_z_mm: 'height of the thrust line',
  line_y_mm: 'thrust line to the side',
  name: 'name',
  step_g: 'step',
  capacity_g: 'capacity',
  mass_g: 'mass',
  stated_g: 'mass',
  doubt: 'doubt',
  constant: 'weighs',
  length_mm: 'length',
  width_mm: 'width',
  height_mm: 'height',
  thickness_mm: 'thickness',
  price: 'price',
  stock: 'in stock',
  kv: 'Kv',
  most_a: 'stands',
  burst_a: 'burst',
  burst_s: 'seconds of a burst',
  drawn_a: 'draws',
  winding_ohm: 'windings',
  idle_a: 'without a load',
  motors: 'motors on one pack',
  cells: 'cells',
  least_cells: 'fewest cells',
  most_cells: 'most cells',
  capacity_mah: 'capacity',
  c_rating: 'C',
  diameter_mm: 'diameter',
  pitch_mm: 'pitch',
  plug_a: 'plug',
  wire_a: 'wire',
  full_share: 'share at full throttle',
  level_throttle: 'throttle held level',
  low_mm: 'foremost',
  high_mm: 'aftmost',
  x_mm: 'from the nose',
  y_mm: 'to the side',
  z_mm: 'height',
  most_g: 'at most',
  carries: 'what it carries',
  chord_share: 'per cent of the chord',
  up_mm: 'travel up',
  down_mm: 'travel down',
}

/** What has no name of its own in a build. */
const THINGS: Record<string, string> = {
  motor: 'Motor',
  controller: 'Controller',
  regulator: 'Regulator',
  plan_mark: 'The plan’s mark',
  pieces: 'Pieces of ballast',
}

function nameOf(thing: unknown, key: string): string | undefined {
  if (typeof thing !== 'object' || thing === null) return undefined
  const { name, kind } = thing as { name?: unknown; kind?: unknown }
  if (typeof name === 'string' && name) return name
  if (typeof kind === 'string' && kind in METRICS) return METRICS[kind as 'auw'].title
  return THINGS[key]
}

/** What the pages call a field of a build that was refused, "Kitchen scale, step"; nothing where
 * they have no word for it. */
export function fieldCalled(field: string, build: unknown): string | undefined {
  // The words about a body name it themselves.
  if (field.startsWith('bodies.')) return ''
  const path = field.split('.')
  let at: unknown = build
  let name: string | undefined
  for (const key of path) {
    at = typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined
    name = nameOf(at, key) ?? THINGS[key] ?? name
  }
  const last = path.at(-1) ?? ''
  const figure = FIGURES[last]
  if (!figure) return name
  return name ? `${name}, ${figure}` : figure.charAt(0).toUpperCase() + figure.slice(1)
}
