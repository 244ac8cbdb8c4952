import { loudnessRatio, minusBackground, levelInRoom, NEAREST_M } from '#core/noise'
import type { Fan, FanTest } from '#core/document'

/** Bench tests of a whole shelf side by side: what each fan gives for the loudness it costs. */

/** Distance that all levels are taken to, m. */
export const TEST_DISTANCE_M = 1

/** One test among the others. Ratios are for ranking only: their unit is that of the figure over the quietest's loudness. */
export interface TestRow {
  fanId: string
  fan: string
  test: FanTest
  /** at one metre, without its background, dB(A); null where none was read, or where it cannot be taken there */
  levelDbA: number | null
  /** read so near that distance does not tell the level: as read, and only to be held against others read as near */
  nearField: boolean
  /** how many times as loud as the quietest of them */
  loudness: number | null
  pressurePerLoudness: number | null
  speedPerLoudness: number | null
  flowPerLoudness: number | null
  pressurePerMoney: number | null
  speedPerMoney: number | null
  flowPerMoney: number | null
}

const over = (value: number | null, by: number | null) => (value !== null && by ? value / by : null)

/** A test's level at one metre; as read in the near field. */
function levelOf(test: FanTest): { level: number | null; nearField: boolean } {
  if (test.levelDbA === null || test.levelDistanceM === null) return { level: null, nearField: false }
  const read = test.backgroundDbA === null ? test.levelDbA : minusBackground(test.levelDbA, test.backgroundDbA)
  const nearField = test.levelDistanceM < NEAREST_M
  if (read === null) return { level: null, nearField }
  return { level: nearField ? read : levelInRoom(read, test.levelDistanceM, TEST_DISTANCE_M).level, nearField }
}

/**
 * Every test of a shelf, the quietest first. Levels read in the near field are held against each other only, as they
 * cannot be taken to another distance.
 * @param fans with their tests
 * Reference: +10 dB is about twice as loud (common practice)
 */
export function compareTests(fans: readonly Fan[]): TestRow[] {
  const told = fans.flatMap((fan) => fan.tests.map((test) => ({ fan, test, ...levelOf(test) })))
  const quietest = (nearField: boolean) =>
    Math.min(...told.filter((t) => t.level !== null && t.nearField === nearField).map((t) => t.level!))
  const base = { near: quietest(true), far: quietest(false) }
  return told
    .map(({ fan, test, level, nearField }): TestRow => {
      const loudness = level === null ? null : loudnessRatio(level - (nearField ? base.near : base.far))
      return {
        fanId: fan.id,
        fan: fan.model,
        test,
        levelDbA: level,
        nearField,
        loudness,
        pressurePerLoudness: over(test.pressurePa, loudness),
        speedPerLoudness: over(test.airSpeedMs, loudness),
        flowPerLoudness: over(test.flowM3s, loudness),
        pressurePerMoney: over(test.pressurePa, fan.price),
        speedPerMoney: over(test.airSpeedMs, fan.price),
        flowPerMoney: over(test.flowM3s, fan.price),
      }
    })
    .toSorted(
      (a, b) =>
        Number(a.loudness === null) - Number(b.loudness === null) ||
        Number(a.nearField) - Number(b.nearField) ||
        (a.loudness ?? 0) - (b.loudness ?? 0),
    )
}
