export type CaptureOpening = 'plain' | 'flanged' | 'bench'

/**
 * Flow that reaches a capture speed at a distance before a hood, m3/s; on the axis up to about 1.5 diameters.
 * @param speed wanted at the source, m/s
 * @param distanceM source to opening, m
 * @param areaM2 of the opening, m2
 * Reference: industrial-ventilation handbook after DallaValle and Silverman (from memory)
 */
export function captureFlow(speed: number, distanceM: number, areaM2: number, opening: CaptureOpening): number {
  if (opening === 'bench') return speed * (5 * distanceM ** 2 + areaM2)
  return (opening === 'flanged' ? 0.75 : 1) * speed * (10 * distanceM ** 2 + areaM2)
}

/** Guidance for the capture speed by how the fume is released, m/s. Industrial-ventilation practice, published (from memory). */
export const captureGuide: { how: string; low: number; high: number }[] = [
  { how: 'evaporates in still air (resin, glue drying)', low: 0.25, high: 0.5 },
  { how: 'rises slowly, little draught (soldering, wax, filling)', low: 0.5, high: 1 },
  { how: 'thrown into moving air (spray, sanding start)', low: 1, high: 2.5 },
  { how: 'thrown fast (grinding, blasting)', low: 2.5, high: 10 },
]

/**
 * Capture speed that a flow reaches at a distance, m/s: the same law backwards.
 * @param flow m3/s, 0 or more
 * Reference: the capture law backwards
 */
export const captureSpeedAt = (flow: number, distanceM: number, areaM2: number, opening: CaptureOpening) =>
  flow / captureFlow(1, distanceM, areaM2, opening)

/**
 * How far a source may be from the opening, m; 0 where the flow does not even give the speed in the opening.
 * @param flow m3/s, 0 or more
 * @param speed m/s, 0 or more
 */
export function captureDistance(flow: number, speed: number, areaM2: number, opening: CaptureOpening): number {
  const reach = flow / speed / (opening === 'flanged' ? 0.75 : 1) - areaM2
  return reach > 0 ? Math.sqrt(reach / (opening === 'bench' ? 5 : 10)) : 0
}

/**
 * Flow of a slot (height/length up to 0.2), m3/s.
 * @param speed m/s, 0 or more
 * Reference: as above.
 */
export const slotCaptureFlow = (speed: number, distanceM: number, lengthM: number, flanged: boolean) =>
  (flanged ? 2.6 : 3.7) * lengthM * speed * distanceM

/**
 * Flow inward through openings at a pressure difference, m3/s.
 * @param pressure Pa
 * @param cd discharge coefficient, 0..1
 * @param density kg/m3, above 0
 * Reference: orifice equation.
 */
export const openingFlow = (pressure: number, areaM2: number, cd: number, density: number) =>
  cd * areaM2 * Math.sqrt((2 * pressure) / density)

/**
 * Pressure difference from the flow through openings, Pa.
 * @param flow m3/s, 0 or more
 * @param cd discharge coefficient, 0..1
 * @param density kg/m3, above 0
 * Reference: orifice equation.
 */
export const openingPressure = (flow: number, areaM2: number, cd: number, density: number) =>
  (density / 2) * (flow / (cd * areaM2)) ** 2
