/** What goes with the screws: grommets, the cable's length, drills. Lengths in m. */

/** Grommets: bore, and the hole in the panel. Usual sizes of the trade, common practice, no source. */
const grommets: readonly { boreM: number; holeM: number }[] = [
  [3, 5],
  [4, 6],
  [5, 8],
  [6, 9],
  [8, 11],
  [9, 12.5],
  [10, 14],
  [12, 16],
  [15, 20],
  [20, 26],
  [25, 32],
].map(([bore, hole]) => ({ boreM: bore! / 1000, holeM: hole! / 1000 }))
const ROUNDING_M = 1e-9
/**
 * The grommet for a cable: the smallest whose bore takes it; null for a thicker one than is usual.
 * @param cableM outside of the cable, m
 * Reference: usual sizes, common practice
 */
export const grommetFor = (cableM: number) => grommets.find((g) => g.boreM >= cableM - ROUNDING_M) ?? null

/** Share of a way that bends and ties add. Common practice, no source. */
const BENDS = 0.1
/**
 * Length of lead that a way to the plug takes, m.
 * @param routeM along the way, m @param slackM what a door or lid needs when it opens, m
 * Reference: a tenth more for bends and ties, common practice, no source
 */
export const leadNeeded = (routeM: number, slackM: number) => (1 + BENDS) * routeM + slackM

/**
 * Drill for a thread cut into the panel, m.
 * @param thread M number @param pitchM coarse pitch, m
 * Reference: diameter less pitch (ISO 2306 for coarse threads, from memory)
 */
export const tapDrill = (thread: number, pitchM: number) => thread / 1000 - pitchM

/** Pilot drill in the arbor of a hole saw or fly cutter, m. A quarter inch, trade, common practice. */
export const PILOT_M = 0.0064
