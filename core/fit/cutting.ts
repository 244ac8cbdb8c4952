/** Holes: what a saw leaves, what an opening lets through. Lengths in m, areas in m2. */

/** Hole saws of the usual sets, m. Inch-derived sizes of the trade, common practice, no source. */
export const usualSaws: readonly number[] = [
  35, 38, 40, 44, 51, 57, 60, 64, 68, 73, 76, 83, 86, 92, 102, 108, 114, 121, 127, 140, 152,
].map((mm) => mm / 1000)

/** What a saw may be over the wanted hole, m. Common practice, no source (FI6). */
const SAW_OVER_M = 0.0005
const ROUNDING_M = 1e-9
/**
 * The largest saw that is not over the wanted hole by more than 0.5 mm; null where none is.
 * @param wantedM diameter, m @param available saws, m
 * Reference: common practice, no source (FI6)
 */
export function holeSaw(wantedM: number, available: readonly number[]): number | null {
  const fits = available.filter((saw) => saw <= wantedM + SAW_OVER_M + ROUNDING_M)
  return fits.length ? Math.max(...fits) : null
}

/**
 * Material between the cut-out and a screw hole, m; below zero they run into each other.
 * @param spacingM m @param cutoutM diameter, m @param holeM diameter, m
 * Reference: half the diagonal less both radii (FI4)
 */
export const webWidth = (spacingM: number, cutoutM: number, holeM: number) =>
  spacingM / Math.SQRT2 - cutoutM / 2 - holeM / 2

/**
 * Share of the wanted area that a hole has.
 * @param actualM diameter, m @param wantedM diameter, m, above 0
 * Reference: areas go by the square (FI5)
 */
export const areaShare = (actualM: number, wantedM: number) => (actualM / wantedM) ** 2

/** Loss factor of a hole too small, on the air speed in the wanted opening, by the share of the diameter. Thin plate (handbook fit 2). */
const plateK: readonly (readonly [share: number, k: number])[] = [
  [1, 0],
  [0.95, 0.12],
  [0.9, 0.4],
  [0.8, 1.5],
]
/** Below this share of the diameter a hole wants another way of cutting. Common practice, no source. */
export const LEAST_SHARE = 0.92
/** Largest hole over the wanted one, m: beyond it the blade tips see a step. Common practice, no source. */
export const MOST_OVER_M = 0.002
/**
 * Loss factor of a hole smaller than wanted, on the speed in the wanted opening; 0 from the wanted size on, null under
 * 80 % of it, where the table ends.
 * @param share of the wanted diameter
 * Reference: thin plate between table points, handbook fit 2
 */
export function smallHoleK(share: number): number | null {
  if (share >= 1) return 0
  for (let i = 1; i < plateK.length; i++) {
    const [s1, k1] = plateK[i - 1]!
    const [s2, k2] = plateK[i]!
    if (share >= s2) return k1 + ((k2 - k1) * (s1 - share)) / (s1 - s2)
  }
  return null
}

/**
 * Area of an elliptical opening, m2.
 * @param widthM m @param heightM m
 * Reference: π/4·w·h (FI7)
 */
export const ellipseArea = (widthM: number, heightM: number) => (Math.PI / 4) * widthM * heightM
/**
 * Area of a slot with round ends, m2.
 * @param lengthM over all, m, not below the width @param widthM m
 * Reference: rectangle and disc (FI8)
 */
export const slotArea = (lengthM: number, widthM: number) =>
  (lengthM - widthM) * widthM + (Math.PI / 4) * widthM ** 2
/**
 * Area of a ring, m2.
 * @param outerM diameter, m @param innerM diameter, m
 * Reference: difference of discs (FI9)
 */
export const annulusArea = (outerM: number, innerM: number) => (Math.PI / 4) * (outerM ** 2 - innerM ** 2)

/** Least material between cut-out and screw hole, m. Common practice, no source. */
export const LEAST_WEB_M = { metal: 0.0015, other: 0.003 } as const
