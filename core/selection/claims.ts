import { medianSorted } from 'simple-statistics'
import { meanOf, standardDeviation } from '#core/measure'
import { currentAtVoltage } from '#core/fan'
import { atDistance, atSpeed, levelDistance, minusBackground, NEAREST_M } from '#core/noise'
import { driveSpeed, freeDelivery, modelFan, shutOffPressure, type FanModel } from '#core/system'
import { asClaimed } from '#core/document'
import type {
  Correction,
  Fan,
  FanTest,
  ShelfShown,
  ShownFigure,
  TestFigure,
  Trusted,
  Trust,
} from '#core/document'

/** Claims against own measurements: of one fan, of all specimens of it, of the whole shelf. */

export const testFigures: TestFigure[] = ['rotation', 'current', 'flow', 'pressure', 'level']

/** A claim held against one test: as read, and at the test's own conditions. */
export interface ClaimRow {
  test: FanTest
  figure: TestFigure
  /** claim as printed: at rated voltage, SI; of a level at the claim's distance */
  claim: number
  /** reading as read, at the test's voltage; a level without its background */
  read: number
  /** read over claim; for levels 1 */
  plain: number
  /** claim brought to the test's voltage or measured speed (a level to its distance as well) */
  claimed: number
  /** read over that; for levels 1 */
  ratio: number
  /** read less claimed there, dB; null for all but levels */
  difference: number | null
  /** how far the reading lies from the claim at its own conditions */
  flag: 'as-claimed' | 'off' | 'far-off'
  /** on which side; null as claimed */
  side: 'over' | 'under' | null
  /** how the claim was brought to the test's conditions */
  how: string
}

/** A claim may miss by this before it is flagged, and before it is far off: shares; dB for levels. Common practice, no source. */
const OFF = { share: 0.1, level: 2 }
const FAR = { share: 0.25, level: 5 }
/** Distance assumed for a claim or a test that states none, m. */
const ASSUMED_M = 1

/** A label's current is the most a fan takes: down to this share of it is as claimed. Common practice, no source. */
const LABEL_CURRENT = 0.55

function flagOf(distance: number, kind: 'share' | 'level'): ClaimRow['flag'] {
  return distance <= OFF[kind] ? 'as-claimed' : distance <= FAR[kind] ? 'off' : 'far-off'
}

/**
 * Every figure of every test against its claim. Speed and current claims are taken to the test's voltage; flow and
 * pressure claims to the measured speed (Q ~ n, p ~ n²), or to the voltage where no speed was read.
 * Reference: docs/physics.md ME19 (correct speed first, then judge)
 */
export function claimRows(fan: Fan): ClaimRow[] {
  const made = modelFan({ ...asClaimed(fan), trusted: undefined })
  const model = made.ok ? made.model : null
  return fan.tests.flatMap((test) =>
    testFigures.flatMap((figure) => {
      const row = claimOf(fan, model, test, figure)
      return row ? [row] : []
    }),
  )
}

/** How fast the fan ran in a test, over its rated speed: as read, else by its voltage; and whether it was read. */
function testSpeed(
  fan: Fan,
  model: FanModel | null,
  test: FanTest,
): { share: number; byVolts: number; read: boolean } {
  const byVolts = model
    ? driveSpeed(model, test.volts)
    : Math.max(0, test.volts - (fan.interceptV ?? 0)) / (fan.ratedV - (fan.interceptV ?? 0))
  const measured = test.rpm !== null && fan.ratedRpm ? test.rpm / fan.ratedRpm : null
  return { share: measured ?? byVolts, byVolts, read: measured !== null }
}

const sideOf = (flag: ClaimRow['flag'], over: boolean): ClaimRow['side'] =>
  flag === 'as-claimed' ? null : over ? 'over' : 'under'

/** A figure that is told as a share of its claim. @param factor from the claim to the claim at the test's conditions */
function shareRow(
  test: FanTest,
  figure: TestFigure,
  claim: number | null,
  read: number | null,
  factor: number,
  how: string,
): ClaimRow | null {
  if (!claim || claim <= 0 || read === null || !(factor > 0)) return null
  const ratio = read / (claim * factor)
  const usual = figure === 'current' && ratio <= 1 && ratio >= LABEL_CURRENT
  const flag = usual ? 'as-claimed' : flagOf(Math.abs(ratio - 1), 'share')
  return {
    test,
    figure,
    claim,
    read,
    plain: read / claim,
    claimed: claim * factor,
    ratio,
    difference: null,
    flag,
    side: sideOf(flag, ratio > 1),
    how,
  }
}

function levelRow(
  fan: Fan,
  model: FanModel | null,
  test: FanTest,
  speed: number,
  how: string,
): ClaimRow | null {
  const claim = model?.claimDbA ?? fan.noiseDbA
  const driven = claim === null ? null : atSpeed(claim, 1, speed)
  const read =
    test.levelDbA === null || test.backgroundDbA === null
      ? test.levelDbA
      : minusBackground(test.levelDbA, test.backgroundDbA)
  if (read === null || claim === null || driven === null) return null
  const stood = test.levelDistanceM ?? ASSUMED_M
  const claimed = atDistance(
    driven,
    model?.claimDistanceM ?? fan.noiseDistanceM ?? ASSUMED_M,
    levelDistance(stood),
  )
  const difference = read - claimed
  const flag = flagOf(Math.abs(difference), 'level')
  const where =
    test.levelDistanceM === null
      ? 'distance not stated'
      : stood < NEAREST_M
        ? 'read in the near field, where distance does not tell the level'
        : 'at the test’s distance'
  return {
    test,
    figure: 'level',
    claim,
    read,
    plain: 1,
    claimed,
    ratio: 1,
    difference,
    flag,
    side: sideOf(flag, difference > 0),
    how: `${how}, ${where}`,
  }
}

function claimOf(fan: Fan, model: FanModel | null, test: FanTest, figure: TestFigure): ClaimRow | null {
  const { share, byVolts, read } = testSpeed(fan, model, test)
  const how = read ? 'at the measured speed' : 'at the test’s voltage'
  switch (figure) {
    case 'rotation':
      return shareRow(test, figure, fan.ratedRpm, test.rpm, byVolts, 'at the test’s voltage')
    case 'current': {
      const there = fan.ratedA === null ? 0 : currentAtVoltage(test.volts, fan.ratedV, fan.ratedA) / fan.ratedA
      return shareRow(test, figure, fan.ratedA, test.currentA, there, 'at the test’s voltage')
    }
    case 'flow':
      return shareRow(
        test,
        figure,
        fan.maxFlowM3s ?? (model && freeDelivery(model)),
        test.flowM3s,
        share || 1,
        how,
      )
    case 'pressure': {
      const claim = fan.maxPressurePa ?? (model && shutOffPressure(model))
      return shareRow(test, figure, claim, test.pressurePa, share ** 2 || 1, how)
    }
    case 'level':
      return levelRow(fan, model, test, share, how)
  }
}

/** How much alike the specimens of one fan are. */
export interface Spread {
  figure: TestFigure
  specimens: number
  mean: number
  low: number
  high: number
  /** of the specimens' means; null for one specimen */ sd: number | null
}

const valueOf = (row: ClaimRow) => row.difference ?? row.ratio

/** Mean of each figure over a fan's specimens (each specimen counts once), as ratio to the claim or dB above it, with its spread. */
export function spreadOf(fan: Fan): Spread[] {
  const rows = claimRows(fan)
  return testFigures.flatMap((figure) => {
    const bySpecimen = new Map<string, number[]>()
    for (const row of rows)
      if (row.figure === figure)
        bySpecimen.set(row.test.specimen, [...(bySpecimen.get(row.test.specimen) ?? []), valueOf(row)])
    const means = [...bySpecimen.values()].map(meanOf)
    if (!means.length) return []
    const middle = meanOf(means)
    const sd = standardDeviation(means)
    return [
      { figure, specimens: means.length, mean: middle, low: Math.min(...means), high: Math.max(...means), sd },
    ]
  })
}

/** Fans that must have been tested before a shelf's experience is applied to the untested ones. A choice of ours. */
export const MIN_SHOWN = 3

/** What the tests of a whole shelf say about claims: each tested fan counts once. */
export function shelfShown(fans: readonly Fan[]): ShelfShown {
  const shown: ShelfShown = {}
  const spreads = fans.filter((f) => f.tests.length).map(spreadOf)
  for (const figure of testFigures) {
    const values = spreads
      .flatMap((s) => s.filter((x) => x.figure === figure).map((x) => x.mean))
      .sort((a, b) => a - b)
    if (!values.length) continue
    shown[figure] = {
      median: medianSorted(values),
      low: values[0]!,
      high: values.at(-1)!,
      fans: values.length,
    }
  }
  return shown
}

/**
 * Own measurements are worth this, share of flow, pressure, current and speed, and dB. Common practice, no source
 * (instrument ranges of the handbook).
 */
const OWN_UNCERTAINTY: Record<TestFigure, number> = {
  rotation: 0.01,
  current: 0.03,
  flow: 0.15,
  pressure: 0.1,
  level: 2,
}

function ownCorrection(spread: Spread): Correction {
  const uncertainty = OWN_UNCERTAINTY[spread.figure]
  const level = spread.figure === 'level'
  return {
    middle: spread.mean,
    low: level ? spread.low - uncertainty : spread.low * (1 - uncertainty),
    high: level ? spread.high + uncertainty : spread.high * (1 + uncertainty),
    from: 'own',
  }
}
const shelfCorrection = (shown: ShownFigure): Correction => ({
  middle: shown.median,
  low: shown.low,
  high: shown.high,
  from: 'shelf',
})

/**
 * A fan as a plan believes it.
 * @param trust 'claims' leaves it; 'own' corrects what was tested on it; 'discounted' corrects the rest by the shelf's
 * median where at least `LEAST_SHOWN` fans were tested
 */
export function trustedFan(fan: Fan, trust: Trust, shown: ShelfShown | null): Fan {
  if (trust === 'claims') return fan
  const own = new Map(spreadOf(fan).map((s) => [s.figure, ownCorrection(s)]))
  const trusted: Trusted = {}
  for (const figure of testFigures) {
    const known = own.get(figure)
    const others = shown?.[figure]
    // a curve that was measured on the bench is what the fan does: neither single tests nor other fans correct it
    const measured =
      fan.curveBasis === 'measured' && fan.points.length > 0 && (figure === 'flow' || figure === 'pressure')
    if (measured) continue
    if (known) trusted[figure] = known
    else if (trust === 'discounted' && others && others.fans >= MIN_SHOWN)
      trusted[figure] = shelfCorrection(others)
  }
  return Object.keys(trusted).length ? { ...fan, trusted } : fan
}

/** A shelf as a plan believes it. */
export const trustedFans = (fans: readonly Fan[], trust: Trust, shown: ShelfShown | null | undefined): Fan[] =>
  trust === 'claims' ? [...fans] : fans.map((f) => trustedFan(f, trust, shown ?? null))
