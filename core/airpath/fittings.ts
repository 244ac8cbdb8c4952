import { interpolate, type KRow } from './table'

/** 90 degree round bends over r/D. Source: ASHRAE duct fittings (from memory). */
const elbow90: KRow[] = [
  { at: 0.5, k: 0.71 },
  { at: 0.75, k: 0.33 },
  { at: 1, k: 0.22 },
  { at: 1.5, k: 0.15 },
  { at: 2, k: 0.13 },
  { at: 2.5, k: 0.12 },
]
/** Factor for other angles of a bend, degrees. Source: from memory. */
const angleFactor: KRow[] = [
  { at: 0, k: 0 },
  { at: 30, k: 0.45 },
  { at: 45, k: 0.6 },
  { at: 60, k: 0.78 },
  { at: 90, k: 1 },
]
/** Round blade damper, degrees from open. Source: after Weisbach (from memory). */
const damper: KRow[] = [
  { at: 0, k: 0.2 },
  { at: 5, k: 0.24 },
  { at: 10, k: 0.52 },
  { at: 15, k: 0.9 },
  { at: 20, k: 1.54 },
  { at: 25, k: 2.51 },
  { at: 30, k: 3.91 },
  { at: 35, k: 6.22 },
  { at: 40, k: 10.8 },
  { at: 45, k: 18.7 },
  { at: 50, k: 32.6 },
  { at: 55, k: 58.8 },
  { at: 60, k: 118 },
  { at: 65, k: 256 },
  { at: 70, k: 751 },
]

/**
 * Loss coefficient of a round bend on the duct's velocity.
 * @param radiusRatio mean radius / diameter, 0.5 to 2.5 (larger radii count as 2.5); a mitre has its own value
 * @param angle degrees, 0 to 90
 * @returns null for a sharper bend or a larger angle than the table has
 * Reference: hydraulics handbooks (from memory); docs/physics.md, fans and air path
 */
export function kElbow(radiusRatio: number, angle = 90): number | null {
  const k = interpolate(elbow90, Math.min(radiusRatio, 2.5))
  const factor = interpolate(angleFactor, angle)
  return k === null || factor === null ? null : k * factor
}

/**
 * Loss coefficient of a round blade damper, 0 to 70 degrees from open.
 * @param angle degrees
 * Reference: hydraulics handbooks (from memory); docs/physics.md, fans and air path
 */
export const kDamper = (angle: number) => interpolate(damper, angle, true)

/**
 * Sudden widening on the narrow velocity (Borda-Carnot), areas in one unit. Derived from momentum.
 * @param areaSmall m2, above 0
 * @param areaLarge m2, not below areaSmall
 * Reference: hydraulics handbooks (from memory); docs/physics.md, fans and air path
 */
export const kExpansion = (areaSmall: number, areaLarge: number) => (1 - areaSmall / areaLarge) ** 2
/**
 * Sudden narrowing on the narrow velocity. From memory (hydraulics handbooks).
 * @param areaLarge m2, not below areaSmall
 * @param areaSmall m2, above 0
 */
export const kContraction = (areaLarge: number, areaSmall: number) => 0.5 * (1 - areaSmall / areaLarge)

export type GrillePlace = 'intake' | 'in-duct' | 'exhaust'

/**
 * Loss coefficient of a sharp-edged perforated plate or grille on the gross velocity; entrance and exit losses are included.
 * @param s free area / gross area, above 0 to 1
 * @returns null for s outside that range
 * Reference: hydraulic-resistance handbook (after Idelchik), from memory
 */
export function kPerforated(s: number, place: GrillePlace): number | null {
  if (!(s > 0 && s <= 1)) return null
  const edge = 0.707 * Math.sqrt(1 - s)
  if (place === 'intake') return ((1.707 - s) / s) ** 2
  return place === 'exhaust' ? ((1 + edge) / s) ** 2 : ((edge + 1 - s) / s) ** 2
}

/**
 * Loss coefficient of a woven round-wire mesh, wire Reynolds number above 500.
 * @param s open share, 0..1
 * Reference: after Idelchik, from memory.
 */
export const kMesh = (s: number) => (s > 0 && s <= 1 ? 1.3 * (1 - s) + (1 / s - 1) ** 2 : null)

/** What a mesh resists more at low wire Reynolds numbers. After Idelchik, from memory. */
const meshFactors: KRow[] = [
  { at: Math.log(50), k: 1.44 },
  { at: Math.log(100), k: 1.24 },
  { at: Math.log(200), k: 1.08 },
  { at: Math.log(400), k: 1.01 },
  { at: Math.log(500), k: 1 },
]

/**
 * Factor on the loss coefficient of a woven mesh by its wire Reynolds number: 1 above 500; below 50 the viscous law
 * 1 + 22/Re goes on.
 * @param wireReynolds ρ·v·d/μ with the wire's diameter and the velocity before the mesh, above 0
 * Reference: after Idelchik, from memory
 */
export function meshFactor(wireReynolds: number): number {
  if (wireReynolds < 50) return 1 + 22 / wireReynolds
  return interpolate(meshFactors, Math.log(wireReynolds)) ?? 1
}

/**
 * Diameter of the wire where nobody measured it, m: insect mesh and dust screens of the trade. Common practice, no
 * source.
 */
export const USUAL_WIRE_M = 0.25e-3

/**
 * Quadratic coefficient b, Pa.s2/m6, of a loss coefficient K on the velocity in an area (m2): b = K rho/(2 A^2).
 * @param k loss coefficient
 * @param density kg/m3, above 0
 * Reference: hydraulics handbooks (from memory); docs/physics.md, fans and air path
 */
export const bFromK = (k: number, areaM2: number, density: number) => (k * density) / (2 * areaM2 * areaM2)

/** Discharge coefficients. Source: published for sharp holes (from memory). */
export const dischargeCoefficients = { sharp: 0.61, slot: 0.62, crack: 0.67, rounded: 0.95 } as const

/**
 * Flow through an opening at a pressure difference, m3/s, with its sign.
 * @param cd discharge coefficient, 0..1
 * @param pressure Pa
 * @param density kg/m3, above 0
 * Reference: orifice equation.
 */
export function orificeFlow(areaM2: number, cd: number, pressure: number, density: number): number {
  return Math.sign(pressure) * cd * areaM2 * Math.sqrt((2 * Math.abs(pressure)) / density)
}

/**
 * Quadratic coefficient of an opening, Pa.s2/m6: rho/(2 (Cd A)^2).
 * @param cd discharge coefficient, 0..1
 * @param density kg/m3, above 0
 * Reference: hydraulics handbooks (from memory); docs/physics.md, fans and air path
 */
export const bOpening = (areaM2: number, cd: number, density: number) => density / (2 * (cd * areaM2) ** 2)
