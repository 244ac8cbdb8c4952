/** What stands near a fan: walls, guards, cones, filters. Lengths in m. */

/**
 * Gap to a flat wall at which the free ring around a round opening equals the opening, m.
 * @param diameterM m
 * Reference: π·D·x = π/4·D² (FI16)
 */
export const curtainDistance = (diameterM: number) => diameterM / 4
/**
 * Free ring over the area of the opening, 0..1.
 * @param diameterM m, above 0 @param gapM m
 * Reference: 4·x/D, at most 1 (FI17)
 */
export const curtainShare = (diameterM: number, gapM: number) => Math.min(1, (4 * gapM) / diameterM)

/** What a gap costs, from to. */
export interface GapCost {
  /** share of the flow that is lost */
  flowLow: number
  flowHigh: number
  /** dB more; null: more than is tabled */
  noiseLow: number
  noiseHigh: number | null
}
/** Gap over diameter; flow lost at the intake and at the exhaust, noise at the intake. Common practice, no source (handbook fit 4). */
const gapTable: readonly (readonly [
  ratio: number,
  intake: [number, number],
  exhaust: [number, number],
  noise: [number, number],
])[] = [
  [1, [0, 0], [0, 0], [0, 0]],
  [0.5, [0.02, 0.05], [0, 0.05], [2, 4]],
  [0.25, [0.1, 0.2], [0.05, 0.15], [5, 10]],
  [0.1, [0.3, 0.5], [0.2, 0.4], [10, 10]],
]
/**
 * What a wall before the intake or behind the exhaust costs; null nearer than a tenth of the diameter, where nothing is
 * tabled.
 * @param ratio gap over the fan's diameter @param side which face
 * Reference: straight between tabled points; common practice, no source (handbook fit 4)
 */
export function gapCost(ratio: number, side: 'intake' | 'exhaust'): GapCost | null {
  const column = side === 'intake' ? 1 : 2
  const noiseOf = (row: (typeof gapTable)[number]) => (side === 'intake' ? row[3] : ([0, 0] as const))
  if (ratio >= 1) return { flowLow: 0, flowHigh: 0, noiseLow: 0, noiseHigh: 0 }
  for (let i = 1; i < gapTable.length; i++) {
    const [near, far] = [gapTable[i]!, gapTable[i - 1]!]
    if (ratio < near[0]) continue
    const t = (far[0] - ratio) / (far[0] - near[0])
    const between = (end: 0 | 1, a: readonly number[], b: readonly number[]) =>
      a[end]! + t * (b[end]! - a[end]!)
    const last = i === gapTable.length - 1 && side === 'intake'
    return {
      flowLow: between(0, far[column], near[column]),
      flowHigh: between(1, far[column], near[column]),
      noiseLow: between(0, noiseOf(far), noiseOf(near)),
      noiseHigh: last ? null : between(1, noiseOf(far), noiseOf(near)),
    }
  }
  return null
}

/**
 * Length of a cone between two diameters, m.
 * @param largeM m @param smallM m @param halfAngleDeg degrees, above 0 and below 90
 * Reference: right triangle (FI18)
 */
export const adapterLength = (largeM: number, smallM: number, halfAngleDeg: number) =>
  (largeM - smallM) / (2 * Math.tan((halfAngleDeg * Math.PI) / 180))

/** A cone as a flat sheet: a ring cut open. */
export interface ConeSheet {
  /** radii of the sheet's outer and inner edge, m */
  outerM: number
  innerM: number
  /** angle of the sheet, degrees */
  angleDeg: number
  /** half angle of the cone, degrees */
  halfAngleDeg: number
}
/**
 * The flat sheet of a cone between two diameters: slant s = √(L² + (D₁ − D₂)²/4), radii s·D/(D₁ − D₂), angle so that the
 * edge has the length of the circle. Null for a tube, which is a rectangle.
 * @param largeM m @param smallM m, above 0 @param lengthM along the axis, m, above 0
 * Reference: development of a right circular cone, geometry
 */
export function coneSheet(largeM: number, smallM: number, lengthM: number): ConeSheet | null {
  const step = (largeM - smallM) / 2
  if (!(step > ALIKE * largeM)) return null
  const slant = Math.hypot(lengthM, step)
  const outerM = (slant * largeM) / (2 * step)
  return {
    outerM,
    innerM: outerM - slant,
    angleDeg: (180 * largeM) / outerM,
    halfAngleDeg: (Math.atan2(step, lengthM) * 180) / Math.PI,
  }
}
/** Diameters nearer than this share are one: the sheet's radii would have no end. */
const ALIKE = 1e-3

export type GuardShape = 'slot' | 'square' | 'round'
/** Narrow side of an opening up to which a distance holds, and that distance by shape, m. ISO 13857, 14 years and over, from memory. */
const guardTable: readonly (readonly [upTo: number, slot: number, square: number, round: number])[] = (
  [
    [4, 2, 2, 2],
    [6, 10, 5, 5],
    [8, 20, 15, 5],
    [10, 80, 25, 20],
    [12, 100, 80, 80],
    [20, 120, 120, 120],
    [30, 850, 120, 120],
    [40, 850, 200, 120],
    [120, 850, 850, 850],
  ] as const
).map((row) => row.map((mm) => mm / 1000) as unknown as [number, number, number, number])
/** A slot of 20 to 30 mm that is no longer than 65 mm lets no arm through, m. Same source. */
const SHORT_SLOT = { above: 0.02, upTo: 0.03, longestM: 0.065, distanceM: 0.2 } as const
const shapes: GuardShape[] = ['slot', 'square', 'round']
const ROUNDING_M = 1e-9
/**
 * Least distance of a guard from what it guards, m; null where the opening is too large for a guard.
 * @param openingM narrow side, or diameter, m @param slotLengthM of a slot, where known, m
 * Reference: ISO 13857, table for persons of 14 years and over, from memory (FI19); consult the standard for acceptance
 */
export function guardDistance(
  openingM: number,
  shape: GuardShape,
  slotLengthM: number | null = null,
): number | null {
  const short =
    shape === 'slot' &&
    slotLengthM !== null &&
    slotLengthM <= SHORT_SLOT.longestM &&
    openingM > SHORT_SLOT.above
  if (short && openingM <= SHORT_SLOT.upTo) return SHORT_SLOT.distanceM
  const row = guardTable.find(([upTo]) => openingM <= upTo + ROUNDING_M)
  return row ? row[1 + shapes.indexOf(shape)]! : null
}

/** Diameter of the probe that must not enter, by the first IP numeral, m. IEC 60529, from memory. */
const probes: readonly (number | null)[] = [null, 0.05, 0.0125, 0.0025, 0.001, 0.001, 0.001]
/**
 * The object probe that must not enter, m; null where nothing is kept out.
 * @param numeral first IP numeral, 0..6, without unit
 * Reference: IEC 60529, from memory (FI22)
 */
export const ipProbe = (numeral: number): number | null => probes[numeral] ?? null

/**
 * Filter area for a face velocity, m2.
 * @param flowM3s m3/s @param velocityMs m/s, above 0
 * Reference: A = Q/v (FI20)
 */
export const filterArea = (flowM3s: number, velocityMs: number) => flowM3s / velocityMs
/**
 * Face velocity of a filter, m/s.
 * @param flowM3s m3/s @param areaM2 m2, above 0
 * Reference: v = Q/A (FI21)
 */
export const faceVelocity = (flowM3s: number, areaM2: number) => flowM3s / areaM2
