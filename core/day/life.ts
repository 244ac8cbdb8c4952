import type { Control } from '#core/document'
import { setLife, WEAR_SHAPE } from '#core/heat'
import { lifeAt, membersOf } from '#core/system'
import { onlySwitches, USUAL } from './controls'
import type { DayStream } from './streams'

/** What a day after day of this wears out. */

const DAYS_A_YEAR = 365
const HOUR_S = 3600

/**
 * Years until a contact has made its operations; null where nothing switches, Infinity where it never does.
 * @param startsADay how many
 */
export function contactYears(control: Control, startsADay: number): { years: number; assumed: boolean } | null {
  if (!onlySwitches(control)) return null
  const { operations } = control
  return {
    years: startsADay > 0 ? (operations ?? USUAL.operations) / (startsADay * DAYS_A_YEAR) : Infinity,
    assumed: operations === null,
  }
}

/**
 * Years until one in ten of such sets has lost a first bearing, at its two ends; null without a stated life.
 * @param onS a day, s @param airC at the fans, degC
 * Reference: bearing life over temperature; the first of several (handbook HT24, HT26)
 */
export function bearingYears(
  streams: readonly DayStream[],
  onS: number,
  airC: number,
): { low: number; high: number } | null {
  const lives = streams.flatMap(({ system: { fanArray } }) =>
    fanArray ? membersOf(fanArray).flatMap((m) => lifeAt(m.fan, airC) ?? []) : [],
  )
  if (!lives.length || !(onS > 0)) return null
  const years = (hours: number) => (setLife(hours, WEAR_SHAPE, lives.length) * HOUR_S) / (onS * DAYS_A_YEAR)
  return {
    low: years(Math.min(...lives.map((l) => l.low))),
    high: years(Math.min(...lives.map((l) => l.high))),
  }
}
