import { rangeBySquares } from '#core/numeric'

/** What a situation makes a fan louder than in the free air of its claim, dB, with its band. */
export interface Penalty {
  key: string
  name: string
  low: number
  high: number
}

/**
 * Situations of an installed fan, dB(A). Common practice, no source (handbook, noise 6).
 */
export const situations = {
  guardOutlet: { key: 'guard-outlet', name: 'wire guard on its outlet', low: 0, high: 1 },
  guardIntake: { key: 'guard-intake', name: 'wire guard on its intake', low: 1, high: 2 },
  grilleIntake: { key: 'grille-intake', name: 'stamped grille flush on its intake', low: 3, high: 8 },
  grilleSpaced: { key: 'grille-spaced', name: 'grille on its intake, 10 mm or more off', low: 1, high: 2 },
  grilleOutlet: { key: 'grille-outlet', name: 'stamped grille on its outlet', low: 1, high: 4 },
  meshIntake: { key: 'mesh-intake', name: 'dust mesh on its intake', low: 1, high: 3 },
  bendIntake: { key: 'bend-intake', name: 'sharp bend or duct edge at its intake', low: 2, high: 5 },
  stall: { key: 'stall', name: 'runs in stall', low: 3, high: 10 },
  hardMount: { key: 'hard-mount', name: 'hard on thin sheet', low: 2, high: 6 },
  softMount: { key: 'soft-mount', name: 'soft mounts on thin sheet', low: 0, high: 2 },
} as const satisfies Record<string, Penalty>

/** What installed fans usually are louder than their claim where their surroundings are not known. Common practice, no source. */
const USUAL = { low: 3, high: 10 }
/** Pressure at which half of that is counted, Pa: in free air nothing resists and the claim holds. A choice of ours. */
const HALF_AT_PA = 5

/**
 * Allowance for an installation of which nothing is known: from none in free air smoothly to the whole where the path
 * resists.
 * @param pressurePa at the operating point, Pa, 0 or more
 * Reference: 3 to 10 dB, common practice; the smooth way to it is a choice of ours
 */
export function usualPenalty(pressurePa: number): Penalty {
  const share = pressurePa / (pressurePa + HALF_AT_PA)
  return { key: 'usual', name: 'usual for an installed fan', low: USUAL.low * share, high: USUAL.high * share }
}

/** Penalty of a wall or board before the intake over its distance in diameters. Common practice, no source. */
const wallRows = [
  { at: 0.25, low: 5, high: 10 },
  { at: 0.5, low: 2, high: 4 },
  { at: 1, low: 0, high: 1 },
  { at: 1.5, low: 0, high: 0 },
]

/**
 * Penalty of a wall or board before the intake; straight between the rows, nearer than a quarter as a quarter.
 * @param diameters distance over the fan's diameter, above 0
 * Reference: common practice, no source
 */
export function wallPenalty(diameters: number): Penalty {
  const name = 'wall or board before its intake'
  const next = wallRows.findIndex((r) => r.at >= diameters)
  if (next <= 0) {
    const row = next === 0 ? wallRows[0]! : wallRows.at(-1)!
    return { key: 'wall', name, low: row.low, high: row.high }
  }
  const [a, b] = [wallRows[next - 1]!, wallRows[next]!]
  const share = (diameters - a.at) / (b.at - a.at)
  return { key: 'wall', name, low: a.low + (b.low - a.low) * share, high: a.high + (b.high - a.high) * share }
}

const middleOf = ({ low, high }: Penalty) => (low + high) / 2

/**
 * Penalties of different situations together, dB: the largest fully and half of the next, with their range.
 * Reference: adding rule of common practice, no source
 */
export function addPenalties(penalties: readonly Penalty[]): { value: number; low: number; high: number } {
  const [first, second] = penalties.toSorted((a, b) => middleOf(b) - middleOf(a))
  if (!first) return { value: 0, low: 0, high: 0 }
  const value = middleOf(first) + (second ? middleOf(second) / 2 : 0)
  const ends = [[first.low - middleOf(first), first.high - middleOf(first)].map((x) => value + x)]
  if (second)
    ends.push([second.low - middleOf(second), second.high - middleOf(second)].map((x) => value + x / 2))
  const { low, high } = rangeBySquares(value, ends)
  return { value, low, high: high ?? value }
}
