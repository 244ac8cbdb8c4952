/** Screws: what the standards say of metric threads. Lengths in m, threads as 4 for M4. */

interface Thread {
  /** M number */
  thread: number
  clearanceM: number
  pitchM: number
  nutM: number
  washerM: number
}
/**
 * Clearance hole, medium series (ISO 273), coarse pitch (ISO 261), largest nut height (ISO 4032), plain washer (ISO 7089);
 * all from memory.
 */
export const threads: readonly Thread[] = [
  { thread: 2.5, clearanceM: 0.0029, pitchM: 0.00045, nutM: 0.002, washerM: 0.0005 },
  { thread: 3, clearanceM: 0.0034, pitchM: 0.0005, nutM: 0.0024, washerM: 0.0005 },
  { thread: 4, clearanceM: 0.0045, pitchM: 0.0007, nutM: 0.0032, washerM: 0.0008 },
  { thread: 5, clearanceM: 0.0055, pitchM: 0.0008, nutM: 0.0047, washerM: 0.001 },
]
/**
 * What the standards say of a thread; null for one that is not in the table.
 * @param thread M number, such as 4
 * Reference: ISO 273, ISO 261, ISO 4032, ISO 7089, from memory (FI12 to FI14)
 */
export const threadOf = (thread: number): Thread | null => threads.find((t) => t.thread === thread) ?? null

/** Screw lengths of the first choice, m. ISO 888 range, from memory. */
export const screwLengths: readonly number[] = [
  4, 5, 6, 8, 10, 12, 16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80,
].map((mm) => mm / 1000)

/** Threads that should stand out of the nut. Common practice, no source. */
const PITCHES_OUT = 2
/**
 * Least length of a through-bolt with its nut, m; null for an unusual thread.
 * @param stackM what it clamps, piece by piece, m @param washers how many @param thread M number
 * Reference: the stack, washers, nut and two pitches (FI15)
 */
export function screwMinLength(stackM: readonly number[], washers: number, thread: number): number | null {
  const t = threadOf(thread)
  if (!t) return null
  return stackM.reduce((s, x) => s + x, 0) + washers * t.washerM + t.nutM + PITCHES_OUT * t.pitchM
}
const ROUNDING_M = 1e-9
/**
 * The next usual length; null over the longest.
 * @param leastM m
 * Reference: ISO 888, from memory
 */
export const screwLength = (leastM: number): number | null =>
  screwLengths.find((l) => l >= leastM - ROUNDING_M) ?? null

/** What a coarse self-tapping screw takes of the frame's near ear, from to, m. Common practice, no source. */
export const TAPPING_M = [0.005, 0.006] as const
/** Ear of a frame that a screw on one flange passes, m. Common practice, no source (3 to 5 mm). */
export const EAR_M = 0.004
