/** Flow through a sharp-edged hole between a box and the room. */

/** Discharge coefficient of a sharp-edged hole in a thin wall. Reference: 0.60 to 0.62, ISO 5167 and ISO 5801 practice (from memory) */
export const SHARP = 0.61
/** The same as a standard uncertainty: what a knife and a card make of it. Common practice, no source. */
export const SHARP_SD = 0.01
/** Below this Reynolds number the coefficient rises and is less certain. Reference: ISO 5167 limits (from memory) */
export const LEAST_REYNOLDS = 5000

/** Area of a round hole, m2. @param diameterM m, above 0 Reference: circle */
export const holeArea = (diameterM: number): number => (Math.PI / 4) * diameterM ** 2

/**
 * How much more flows because the air in the box already moves towards the hole.
 * @param areaM2 of the holes, m2
 * @param boxM2 cross-section of the box, m2, larger than the holes
 * @param coefficient 0..1
 * Reference: Bernoulli between box and jet; the velocity-of-approach factor of ISO 5167 written with the jet's area
 */
export const approachFactor = (areaM2: number, boxM2: number, coefficient = SHARP): number =>
  1 / Math.sqrt(1 - Math.min(0.99, (coefficient * areaM2) / boxM2) ** 2)

/**
 * Flow through sharp-edged holes, m3/s.
 * @param effectiveM2 coefficient times area times approach factor, m2
 * @param pressurePa between box and room, 0 or more
 * @param density kg/m3, above 0
 * Reference: orifice equation Q = C A sqrt(2 dp / rho), ISO 5167 (from memory)
 */
export const flowThrough = (effectiveM2: number, pressurePa: number, density: number): number =>
  effectiveM2 * Math.sqrt((2 * Math.max(0, pressurePa)) / density)

/**
 * Effective area for a flow at a pressure, m2.
 * @param flowM3s m3/s
 * @param pressurePa above 0
 * @param density kg/m3, above 0
 * Reference: the orifice equation turned round
 */
export const areaForFlow = (flowM3s: number, pressurePa: number, density: number): number =>
  flowM3s / Math.sqrt((2 * pressurePa) / density)

/**
 * Reynolds number of a hole.
 * @param diameterM m
 * @param pressurePa between box and room, 0 or more
 * @param density kg/m3, above 0
 * @param viscosity Pa s, above 0
 * Reference: Re = rho v d / mu with the jet's speed
 */
export const holeReynolds = (
  diameterM: number,
  pressurePa: number,
  density: number,
  viscosity: number,
): number => (density * Math.sqrt((2 * pressurePa) / density) * diameterM) / viscosity

/**
 * Effective area of a box's leaks, m2: a card with a small hole feeds the box from the fan's shut-off pressure, the leaks
 * let the same flow out.
 * @param holeM diameter of the hole in the card, m
 * @param shutOffPa what the fan makes against a closed card, Pa
 * @param boxPa what is left in the box, Pa
 * @returns null where the box is no lower than the fan's pressure: nothing leaks that could be seen
 * Reference: two openings in series, the orifice equation on both
 */
export function leakArea(holeM: number, shutOffPa: number, boxPa: number): number | null {
  if (!(boxPa > 0)) return Infinity
  if (boxPa >= shutOffPa) return null
  return SHARP * holeArea(holeM) * Math.sqrt((shutOffPa - boxPa) / boxPa)
}
