import { EAR_M, frameOf, screwLength, screwMinLength, TAPPING_M, threadOf } from '#core/fit'
import type { Fan, Place, Thread } from '#core/document'
import type { Layer } from './stack'

/** The screws as they follow from the stack. */
export interface ScrewPlan {
  thread: Thread
  /** everything clamped, head to far side, m */
  gripM: number
  /** that must stand beyond the grip, and the most that may, m; null: not told */
  engageM: number
  mostM: number | null
  leastM: number
  /** next usual length that holds and does not go too far, m; null where none does */
  lengthM: number | null
  washers: number
  nuts: boolean
}

/** Washers that a bolt has where nobody said otherwise. Common practice, no source. */
const USUAL_WASHERS = 2
/** Thread that is usual for a frame; a blower has none that is. */
export const usualThread = (fan: Fan) => (fan.kind === 'axial' ? (frameOf(fan.frameM)?.thread ?? null) : null)

/** What the screws pass: both flanges, or the near ear alone. */
export function screwOf({ mountKind: way, fit }: Place, fan: Fan, layers: readonly Layer[]): ScrewPlan | null {
  const bolted = way === 'screws' || way === 'near-flange'
  if (!bolted && way !== 'self-tapping') return null
  const thread = fit?.thread ?? usualThread(fan)
  if (thread === null) return null
  const at = layers.findIndex((l) => l.key === 'fan')
  // a filter in a slot, by magnets or hook-and-loop is not clamped
  const clampsFilter = fit?.filterHeld === 'frame' || fit?.filterHeld === 'screws'
  const before = layers
    .slice(0, at)
    .filter((l) => l.key !== 'filter' || clampsFilter)
    .map((l) => l.thicknessM)
  const washers = fit?.washers ?? (bolted ? USUAL_WASHERS : 0)
  const sum = (list: readonly number[]) => list.reduce((s, x) => s + x, 0)
  if (!bolted) {
    const gripM = sum(before) + washers * threadOf(thread)!.washerM
    const leastM = gripM + TAPPING_M[0]
    const mostM = TAPPING_M[1]
    const next = screwLength(leastM)
    const lengthM = next !== null && next <= gripM + mostM + 1e-9 ? next : null
    return { thread, gripM, engageM: TAPPING_M[0], mostM, leastM, lengthM, washers, nuts: bolted }
  }
  const clamped =
    way === 'screws'
      ? [
          ...before,
          ...layers
            .slice(at, at + 2)
            .filter((l) => l.key !== 'filter')
            .map((l) => l.thicknessM),
        ]
      : [...before, EAR_M]
  const leastM = screwMinLength(clamped, washers, thread)!
  const gripM = sum(clamped)
  const mostM = fit?.behindM ?? null
  const next = screwLength(leastM)
  const lengthM = next !== null && (mostM === null || next <= gripM + mostM + 1e-9) ? next : null
  return { thread, gripM, engageM: leastM - gripM, mostM, leastM, lengthM, washers, nuts: bolted }
}
