/** Resistivity of annealed copper at 20 degC, ohm.m, and its temperature coefficient, 1/K. Reference: IEC 60028. */
const COPPER_RESISTIVITY = 1 / 58e6
const COPPER_ALPHA = 0.00393
/** Resistance of one contact pair, ohm. Common practice, no source. */
export const CONTACT_OHM = 0.01

/**
 * Diameter of an AWG size, m; 1/0 is 0, 2/0 is -1.
 * @param awg AWG size; 1/0 is 0
 * Reference: ASTM B258.
 */
export const awgDiameter = (awg: number) => 0.127e-3 * 92 ** ((36 - awg) / 39)
/**
 * Cross-section of an AWG size, m2.
 * @param awg AWG size; 1/0 is 0
 * Reference: ASTM B258.
 */
export const awgArea = (awg: number) => (Math.PI / 4) * awgDiameter(awg) ** 2

/** Resistivity of annealed copper, ohm.m, at a temperature in degC. Reference: IEC 60028. */
export const copperResistivity = (temperatureC = 20) =>
  COPPER_RESISTIVITY * (1 + COPPER_ALPHA * (temperatureC - 20))
/** Resistance of solid copper per length, ohm/m. Reference: IEC 60028. */
export const copperResistance = (areaM2: number, temperatureC = 20) => copperResistivity(temperatureC) / areaM2

/** Largest resistance of metric conductors at 20 degC, ohm/m, by cross-section in mm2. Reference: IEC 60228, plain copper. */
export const metricResistance: Record<'5' | '1-2', Record<number, number>> = {
  '5': { 0.5: 0.039, 0.75: 0.026, 1: 0.0195, 1.5: 0.0133, 2.5: 0.00798, 4: 0.00495, 6: 0.0033 },
  '1-2': { 0.5: 0.036, 0.75: 0.0245, 1: 0.0181, 1.5: 0.0121, 2.5: 0.00741, 4: 0.00461, 6: 0.00308 },
}

/**
 * Resistance of a flexible metric conductor at 20 degC, ohm/m: the standard's where it names the cross-section, else by
 * its copper with the same allowance.
 * @param mm2 cross-section, mm2, above 0
 * Reference: IEC 60228 class 5
 */
export const metricOhm = (mm2: number): number => metricResistance['5'][mm2] ?? 0.0195 / mm2

/**
 * AWG size that has no more copper than a metric cross-section: its current may be planned with.
 * @param mm2 cross-section, mm2, above 0
 * Reference: ASTM B258
 */
export function awgNotThicker(mm2: number): number {
  const sizes = Object.keys(awgAmpacity).map(Number)
  return sizes.find((awg) => awgArea(awg) * 1e6 <= mm2 * 1.02) ?? Math.max(...sizes)
}

/**
 * AWG sizes people use for fans, with the current to plan with, A. 10 to 18 agree with NFPA 70 small-conductor limits;
 * smaller ones common practice, no source.
 */
export const awgAmpacity: Record<number, number> = {
  10: 30,
  12: 20,
  14: 15,
  16: 10,
  18: 7,
  20: 4,
  22: 2.5,
  24: 1.5,
  26: 1,
  28: 0.6,
  30: 0.4,
}

/**
 * Voltage lost there and back, V. @param lengthM one-way length @param ohmPerM of one conductor @param contactPairs plugs on the way
 * @param current A, 0 or more
 * Reference: ASTM B258, IEC 60028
 */
export const wireDrop = (lengthM: number, ohmPerM: number, current: number, contactPairs = 0) =>
  (2 * lengthM * ohmPerM + contactPairs * CONTACT_OHM) * current

/**
 * Longest one-way length for a drop, m.
 * @param drop V
 * @param current A, 0 or more
 * Reference: ASTM B258, IEC 60028
 */
export const longestWire = (drop: number, ohmPerM: number, current: number) =>
  current > 0 ? drop / (2 * ohmPerM * current) : null

/**
 * Derating for loaded conductors in a bundle.
 * @param conductors loaded ones in a bundle, 1 or more
 * Reference: NFPA 70 (from memory).
 */
export function bundleFactor(conductors: number): number {
  if (conductors <= 3) return 1
  if (conductors <= 6) return 0.8
  return conductors <= 9 ? 0.7 : 0.5
}

/**
 * Current allowed in a warm bundle, A; 0 at or above the insulation's rating.
 * @param conductors loaded ones in a bundle, 1 or more
 * Reference: docs/physics.md, wire; ambient 30 degC as base.
 */
export function allowedCurrent(
  planA: number,
  conductors: number,
  insulationC: number,
  ambientC: number,
): number {
  return ambientC >= insulationC
    ? 0
    : planA * bundleFactor(conductors) * Math.sqrt((insulationC - ambientC) / (insulationC - 30))
}

/** Current that melts a bare copper wire, A, diameter in m. Reference: W. H. Preece (from memory); a limit never to approach. */
export const fusingCurrent = (diameterM: number) => 80 * (diameterM * 1000) ** 1.5
