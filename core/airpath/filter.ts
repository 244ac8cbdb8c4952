/** A filter medium: dp = c1 v + c2 v^2 on the face velocity, with the band seen. */
export interface FilterMedium {
  key: string
  name: string
  /** Pa.s/m */
  c1: number
  c1Low: number
  c1High: number
  /** Pa.s2/m2 */
  c2: number
  c2Low: number
  c2High: number
  /** highest usual face velocity, m/s */
  maxFaceSpeed: number
}

const medium = (
  key: string,
  name: string,
  c1Low: number,
  c1High: number,
  c2Low: number,
  c2High: number,
  maxFaceSpeed: number,
): FilterMedium => ({
  key,
  name,
  c1Low,
  c1High,
  c2Low,
  c2High,
  maxFaceSpeed,
  c1: Math.round(10 * Math.sqrt(Math.max(c1Low, 0.1) * c1High)) / 10,
  c2: c2Low > 0 ? Math.round(10 * Math.sqrt(c2Low * c2High)) / 10 : (c2Low + c2High) / 2,
})

/**
 * Clean media, typical; use the sheet when there is one. Common practice, no source. c1 and c2 are the geometric middle
 * of their bands, c2 the middle where its band begins at none.
 */
export const filterMedia: FilterMedium[] = [
  medium('foam20', 'Foam 10 to 20 ppi, 10 mm', 1, 5, 2, 6, 2),
  medium('foam30', 'Foam 30 ppi, 10 mm', 5, 12, 5, 12, 1.5),
  medium('foam45', 'Foam 45 ppi, 10 mm', 10, 25, 8, 20, 1),
  medium('mesh', 'Nylon or metal dust mesh', 1, 6, 3, 15, 1.5),
  medium('coarse', 'Pleated coarse (ISO coarse)', 15, 40, 0, 15, 1.5),
  medium('fine', 'Pleated fine (ISO ePM1)', 40, 120, 0, 20, 1),
  medium('hepa', 'HEPA H13 panel', 250, 600, 0, 0, 0.5),
  medium('carbonFoam', 'Carbon-loaded foam, 10 mm', 15, 50, 10, 30, 0.5),
]

/**
 * Doubt of a medium's loss as the share by which it may be more (the same factor less): its band at half its highest
 * usual face velocity.
 * Reference: bands of common practice, no source
 */
export function mediumDoubt({ c1Low, c1High, c2Low, c2High, maxFaceSpeed }: FilterMedium): number {
  const at = (c1: number, c2: number) => c1 + (c2 * maxFaceSpeed) / 2
  return Math.sqrt(at(c1High, c2High) / at(c1Low, c2Low)) - 1
}

/** Loss of a loaded filter over a clean one, for planning. Common practice, no source (change at 2 to 3 times). */
export const LOADED_FACTOR = 2

/**
 * Loss of a filter, Pa: the face velocity decides, so doubling the face halves the linear part and quarters the quadratic one.
 * @param flow m3/s
 * @param areaM2 face area, m2, > 0
 * @param c1 Pa.s/m
 * @param c2 Pa.s2/m2
 * Reference: common practice, no source
 */
export function filterDrop(flow: number, areaM2: number, c1: number, c2: number): number {
  const v = flow / areaM2
  return c1 * v + c2 * v * v
}

/**
 * Loss of a bed of grains, Pa. Reference: S. Ergun, Chem. Eng. Prog. 48 (1952).
 * @param lengthM depth of the bed, m
 * @param voids share of voids, 0.38 to 0.45
 * @param grainM grain diameter, m
 * @param speed velocity on the empty cross-section, m/s
 * @param density kg/m3, above 0
 * @param viscosity Pa.s, above 0
 */
export function packedBedDrop(
  lengthM: number,
  voids: number,
  grainM: number,
  speed: number,
  density: number,
  viscosity: number,
): number {
  const viscous = (150 * viscosity * (1 - voids) ** 2 * speed) / (voids ** 3 * grainM ** 2)
  return lengthM * (viscous + (1.75 * density * (1 - voids) * speed ** 2) / (voids ** 3 * grainM))
}
