import { annulusArea } from './cutting'

/** Holes without a saw: a chain of drilled holes round the disc, rings of holes left as a grille. Lengths in m. */

/** Left between two holes of a chain, to be cut through. Common practice, no source. */
const CHAIN_WEB_M = 0.0005
/** Left between the holes of a grille, share of the drill: less tears. Common practice, no source. */
const RING_WEB = 0.35
const ROUNDING = 1e-9

export interface DrilledRing {
  /** of the circle that the holes' middles stand on */
  diameterM: number
  count: number
}

/**
 * A chain of holes inside the line of a disc, so near each other that the rest breaks or is cut through; what is filed
 * away afterwards reaches the line.
 * @param diameterM of the disc, above the drill, m @param drillM m, above 0
 * Reference: as many as stand on the circle D − d with 0.5 mm between them, geometry
 */
export function chainDrilling(diameterM: number, drillM: number): DrilledRing | null {
  const circle = diameterM - drillM
  if (!(drillM > 0) || circle < 2 * drillM) return null
  return { diameterM: circle, count: mostOn(circle, drillM + CHAIN_WEB_M) }
}
/** How many chords of a length stand on a circle. */
const mostOn = (circleM: number, chordM: number) =>
  Math.floor(Math.PI / Math.asin(Math.min(1, chordM / circleM)) + ROUNDING)

export interface DrilledGrille {
  rings: DrilledRing[]
  count: number
  areaM2: number
  /** free share of the ring that the blades sweep */
  share: number
  drillM: number
  /** middle to middle, m */
  pitchM: number
}
/**
 * Rings of drilled holes over what the blades sweep, left as a grille; null where not one ring goes in.
 * @param outerM of the wanted hole, m @param hubM diameter, m @param drillM m, above 0
 * Reference: rings one pitch apart, holes of a ring one pitch apart, geometry
 */
export function ringDrilling(outerM: number, hubM: number, drillM: number): DrilledGrille | null {
  const pitchM = (1 + RING_WEB) * drillM
  const rings: DrilledRing[] = []
  for (let d = outerM - drillM; d >= hubM + drillM - ROUNDING; d -= 2 * pitchM)
    rings.push({ diameterM: d, count: mostOn(d, pitchM) })
  if (!rings.length) return null
  const count = rings.reduce((s, r) => s + r.count, 0)
  const areaM2 = count * (Math.PI / 4) * drillM ** 2
  return { rings, count, areaM2, share: areaM2 / annulusArea(outerM, hubM), drillM, pitchM }
}
