/** Square frames of axial fans, their screw patterns and cut-outs. Lengths in m. */

/** A nominal frame: what is usual of it. De facto pattern shared by makers, from memory (docs/physics.md, frames). */
export interface Frame {
  /** nominal side */
  sideM: number
  /** screw holes, centre to centre along a side */
  spacingM: number
  /** cut-out for its blades, from to */
  cutoutM: readonly [number, number]
  /** hole in the frame, from to */
  holeM: readonly [number, number]
  /** thread of the usual screw, as 4 for M4 */
  thread: 2.5 | 3 | 4
}
const frame = (
  side: number,
  spacing: number,
  cutout: [number, number],
  hole: [number, number],
  thread: Frame['thread'],
): Frame => ({
  sideM: side / 1000,
  spacingM: spacing / 1000,
  cutoutM: [cutout[0] / 1000, cutout[1] / 1000],
  holeM: [hole[0] / 1000, hole[1] / 1000],
  thread,
})
export const frames: readonly Frame[] = [
  frame(25, 20, [23.5, 24.5], [2.7, 2.9], 2.5),
  frame(30, 24, [28, 29], [2.8, 3.3], 2.5),
  frame(35, 29, [33, 34], [2.8, 3.3], 2.5),
  frame(40, 32, [37.5, 38.5], [3.2, 3.7], 3),
  frame(50, 40, [47.5, 48.5], [3.4, 4.5], 3),
  frame(60, 50, [57, 58.5], [4.2, 4.5], 4),
  frame(70, 60, [66, 68], [4.2, 4.5], 4),
  frame(80, 71.5, [75, 77], [4.2, 4.5], 4),
  frame(92, 82.5, [87, 89], [4.2, 4.5], 4),
  frame(120, 105, [114, 117], [4.2, 5.3], 4),
  frame(140, 124.5, [132, 136], [4.2, 5.3], 4),
  frame(200, 154, [186, 194], [4.2, 5.5], 4),
]

/** Half of what a nominal side may be off, m. */
const SAME_SIDE_M = 0.0005
/**
 * The usual frame of a nominal side; null for an unusual one.
 * @param sideM m
 * Reference: de facto frame patterns, from memory (FI1)
 */
export const frameOf = (sideM: number): Frame | null =>
  frames.find((f) => Math.abs(f.sideM - sideM) < SAME_SIDE_M) ?? null

/** What a measured spacing and a measured side may be off their nominal, m. Common practice, no source (FI2). */
const SPACING_OFF_M = 0.001
const SIDE_OFF_M = [-0.001, 0.002] as const
const ROUNDING_M = 1e-9
/**
 * The frame that a calliper shows: its spacing within 1 mm, its nominal side from 1 mm above to 2 mm below the measured
 * one; null where none is both.
 * @param sideM measured outside, m @param spacingM measured between holes, m
 * Reference: frames are up to 0.3 mm under nominal, pads up to 2 mm over; common practice, no source (FI2)
 */
export function identifyFrame(sideM: number, spacingM: number): Frame | null {
  const found = frames.filter((f) => {
    const over = sideM - f.sideM
    return (
      Math.abs(f.spacingM - spacingM) <= SPACING_OFF_M + ROUNDING_M &&
      over >= SIDE_OFF_M[0] - ROUNDING_M &&
      over <= SIDE_OFF_M[1] + ROUNDING_M
    )
  })
  return found.toSorted((a, b) => Math.abs(a.spacingM - spacingM) - Math.abs(b.spacingM - spacingM))[0] ?? null
}

/**
 * Diameter of the circle through the four holes, m.
 * @param spacingM centre to centre along a side, m
 * Reference: diagonal of a square (FI3)
 */
export const boltCircle = (spacingM: number) => Math.SQRT2 * spacingM
