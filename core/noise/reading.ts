import { atDistance, minusBackground, NEAREST_M, readingClass, ROOM_LIMIT_M } from './levels'

/** A level as a meter showed it, cleaned of what is not the source's. */
export interface CleanLevel {
  /** dB(A); the reading itself where it is only an upper bound */
  level: number
  /** why the source may be quieter than that: the meter's own floor, or less than 3 dB over the background */
  bound: 'floor' | 'background' | null
  /** the background was taken off */
  corrected: boolean
}

/**
 * The one correction of a read level for background and the meter's floor.
 * @param reading dB(A)
 * @param background dB(A) with the source off; null where it was not read
 * @param floor lowest level that the meter can show, dB(A); null where it is not known
 * Reference: ISO 3744 and ISO 3746 (from memory)
 */
export function cleanLevel(reading: number, background: number | null, floor: number | null): CleanLevel {
  const atFloor = floor !== null && readingClass(reading, floor) !== 'usable'
  const without = background === null ? reading : minusBackground(reading, background)
  if (without === null) return { level: reading, bound: 'background', corrected: false }
  return { level: without, bound: atFloor ? 'floor' : null, corrected: without !== reading }
}

/**
 * Distance that a level in a room is computed for, m: not nearer than the near field, not beyond where it hardly falls.
 * Reference: common practice, no source
 */
export const levelDistance = (distanceM: number) => Math.min(Math.max(distanceM, NEAREST_M), ROOM_LIMIT_M)

/** Whether the distance law holds from one distance to the other, m. Common practice, no source. */
export const distanceLawHolds = (fromM: number, toM: number) =>
  Math.min(fromM, toM) >= NEAREST_M && Math.max(fromM, toM) <= ROOM_LIMIT_M

/** The nearest that a room's level may stop falling, m. Common practice, no source (0.5 to 1.5 m). */
const LEAST_ROOM_LIMIT_M = 0.5

/**
 * A level read in a room, moved to another distance: by the free-field law where it holds. Farther away a room lets it
 * fall no more, from a distance that lies somewhere between the microphone (0.5 m at least) and 1.5 m: so far the level
 * is in doubt. The near field is left out.
 * @param level dB(A) at the first distance
 * @param fromM microphone to source, m, > 0
 * @param toM wanted, m, > 0
 * @returns the level in the middle, and how far it may be off, dB
 * Reference: limits of the distance law, common practice, no source
 */
export function levelInRoom(level: number, fromM: number, toM: number): { level: number; halfWidth: number } {
  const [from, to] = [levelDistance(fromM), levelDistance(toM)]
  const most = atDistance(level, from, to)
  if (Math.max(fromM, toM) <= ROOM_LIMIT_M) return { level: most, halfWidth: 0 }
  const limit = Math.max(LEAST_ROOM_LIMIT_M, Math.min(from, to))
  const least = atDistance(level, Math.min(from, limit), Math.min(to, limit))
  const [a, b] = [Math.min(least, most), Math.max(least, most)]
  return { level: (a + b) / 2, halfWidth: (b - a) / 2 }
}
