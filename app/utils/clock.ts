/** Times of the day, as people write them. */

const MOST_H = 24
const two = (n: number) => String(n).padStart(2, '0')

/** Seconds after midnight as 08:30. */
export function printClock(seconds: number): string {
  const minutes = Math.round(seconds / 60)
  return `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`
}
/**
 * Seconds after midnight of 8, 8:30, 08.30 or 8 h 30; null where it is no time of a day.
 * @example parseClock('8:30') // 30600
 */
export function parseClock(text: string): number | null {
  const found = /^(\d{1,2})(?:\s*[:.h]\s*(\d{2})?)?\s*h?$/i.exec(text.trim())
  if (!found) return null
  const [hours, minutes] = [Number(found[1]), Number(found[2] ?? 0)]
  if (hours > MOST_H || minutes > 59 || (hours === MOST_H && minutes > 0)) return null
  return hours * 3600 + minutes * 60
}

/** A moment as 2026-05-31 18:05, in the time of this place. */
export function localTime(iso: string): string {
  const at = new Date(iso)
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} ${two(at.getHours())}:${two(at.getMinutes())}`
}
