import { kContraction, kExpansion } from './fittings'
import { interpolate } from './table'

/** A piece of the trade with its loss coefficient K, low and high, on the velocity in its bore. */
export interface Piece {
  key: string
  name: string
  k: number
  low: number
  high: number
  source: string
}
const piece = (key: string, name: string, low: number, high: number, source: string): Piece => ({
  key,
  name,
  low,
  high,
  k: (low + high) / 2,
  source,
})

/** Where air enters a duct from the open. */
export const hoods: Piece[] = [
  piece('free-end', 'Pipe end standing free', 0.8, 1.0, 'published, from memory'),
  piece('flush', 'Flush with a wall, sharp', 0.5, 0.5, 'published'),
  piece('tapered', 'Tapered hood or funnel', 0.15, 0.35, 'industrial-ventilation practice, from memory'),
  piece('rounded', 'Rounded bell, radius 0.15 of the bore', 0.04, 0.04, 'published, from memory'),
]
/** Where air leaves a duct into the open; the exit loss is in it. */
export const outlets: Piece[] = [
  piece('free-exit', 'Plain end', 1.0, 1.0, 'published'),
  piece('louvre', 'Wall terminal with louvres or insect hood', 2, 6, 'common practice, no source'),
  piece('cowl', 'Rain cowl', 1.5, 3, 'common practice, no source'),
]
/** Where a branch joins or leaves. */
export const wyes: Piece[] = [
  piece('wye', 'Wye at 45°', 0.3, 0.5, 'common practice, no source'),
  piece('tee', 'Tee, branch at 90°', 1.0, 1.3, 'common practice, no source'),
]
/** Bends that are not round elbows. */
export const mitres: Piece[] = [
  piece('mitre', 'Mitre 90°, no vanes', 1.2, 1.2, 'hydraulics handbooks, from memory'),
  piece('mitre45', 'Mitre 45°', 0.34, 0.34, 'hydraulics handbooks, from memory'),
  piece('u-turn', 'U-turn without radius', 2, 3, 'common practice, no source'),
  piece('hose', 'Tight bend of a hose', 0.5, 1, 'common practice, no source'),
]
/** A light back-draught flap: its loss once open. Common practice, no source. */
export const flapPiece = piece('flap', 'Light back-draught flap', 1.5, 4, 'common practice, no source')
/** Pressure that holds a light flap open, Pa. Common practice, no source (2 to 5). */
export const FLAP_PRESSURE = { value: 3.5, low: 2, high: 5 }

/** Share of the Borda-Carnot loss in a diffuser over its total angle, degrees. From memory (hydraulics handbooks). */
const diffuser = [
  { at: 0, k: 0 },
  { at: 10, k: 0.2 },
  { at: 20, k: 0.4 },
  { at: 30, k: 0.6 },
  { at: 45, k: 0.9 },
  { at: 60, k: 1 },
  { at: 180, k: 1 },
]
/** A gradual reducer between 20 and 60 degrees of total angle. From memory (0.05 to 0.1). */
const GRADUAL_REDUCER = 0.075

/**
 * Loss coefficient of a change of bore, on the velocity in the narrow one.
 * @param fromArea m2 upstream
 * @param toArea m2 downstream
 * @param angle total angle, degrees: 180 is sudden
 * Reference: Borda-Carnot (derived) times the diffuser share; sudden narrowing 0.5 (1 - A2/A1); gradual ones from memory
 */
export function kReducer(fromArea: number, toArea: number, angle: number): number {
  if (toArea >= fromArea) return (interpolate(diffuser, angle) ?? 1) * kExpansion(fromArea, toArea)
  const sudden = kContraction(fromArea, toArea)
  return angle > 60 ? sudden : Math.min(sudden, GRADUAL_REDUCER)
}

/** Slide gate over its open share. From memory: 0.1 open, 0.3 at 3/4, 2.1 at half, 17 at a quarter. */
const slideGate = [
  { at: 0.25, k: 17 },
  { at: 0.5, k: 2.1 },
  { at: 0.75, k: 0.3 },
  { at: 1, k: 0.1 },
]
/**
 * Loss coefficient of a slide gate, 0.25 to 1 open; null below a quarter, where no table holds.
 * Reference: hydraulics handbooks, from memory
 */
export const kSlideGate = (openShare: number) => interpolate(slideGate, openShare, true)

/**
 * Loss coefficient of a box that turns a round or slot outlet into another round one, as one behind a radial blower: the
 * jet is lost in the box and the air enters the second bore over a sharp edge.
 * @param inArea m2, above 0
 * @param outArea m2, above 0
 * @returns b without density, 1/m4 (multiply with rho/2): 1/A1^2 + 0.5/A2^2
 * Reference: sudden widening into a large box and sharp entrance; derived
 */
export const adapterLoss = (inArea: number, outArea: number) => 1 / inArea ** 2 + 0.5 / outArea ** 2
