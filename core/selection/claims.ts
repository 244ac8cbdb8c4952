import { medianSorted } from 'simple-statistics'
import { meanOf, standardDeviation } from '#core/measure'
import { currentAtVoltage } from '#core/fan'
import { atDistance, atSpeed, levelDistance, minusBackground } from '#core/noise'
import { driveSpeed, freeDelivery, modelFan, shutOffPressure, type FanModel } from '#core/system'
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

/** A claim held against one test at the test's own conditions. */
export interface ClaimRow {
  test: FanTest
  figure: TestFigure
  /** claim at the test's voltage and, for flow and pressure, at the speed that was measured; SI */
  claimed: number
  measured: number
  /** measured over claimed; for levels 1 */
  ratio: number
  /** measured less claimed, dB; null for all but levels */
  difference: number | null
  flag: 'as-claimed' | 'off' | 'far-off'
  /** how the claim was brought to the test's conditions */
  how: string
}

/** A claim may miss by this before it is flagged, and before it is far off: shares; dB for levels. Common practice, no source. */
const OFF = { share: 0.1, level: 2 }
const FAR = { share: 0.25, level: 5 }
/** Distance assumed for a claim or a test that states none, m. */
const ASSUMED_M = 1

function flagOf(distance: number, kind: 'share' | 'level'): ClaimRow['flag'] {
  return distance <= OFF[kind] ? 'as-claimed' : distance <= FAR[kind] ? 'off' : 'far-off'
}

/**
 * Every figure of every test against its claim. Speed and current claims are taken to the test's voltage; flow and
 * pressure claims to the measured speed (Q ~ n, p ~ n²), or to the voltage where no speed was read.
 * Reference: docs/physics.md ME19 (correct speed first, then judge)
 */
export function claimRows(fan: Fan): ClaimRow[] {
  const made = modelFan({ ...fan, trusted: undefined })
  const model = made.ok ? made.model : null
  return fan.tests.flatMap((test) =>
    testFigures.flatMap((figure) => {
      const row = claimOf(fan, model, test, figure)
      return row ? [row] : []
    }),
  )
}

function claimOf(fan: Fan, model: FanModel | null, test: FanTest, figure: TestFigure): ClaimRow | null {
  const atVolts = model
    ? driveSpeed(model, test.volts)
    : Math.max(0, test.volts - (fan.interceptV ?? 0)) / (fan.ratedV - (fan.interceptV ?? 0))
  const measuredSpeed = test.rpm !== null && fan.ratedRpm ? test.rpm / fan.ratedRpm : null
  const speed = measuredSpeed ?? atVolts
  const how = measuredSpeed === null ? 'at the test’s voltage' : 'at the measured speed'
  const share = (claimed: number | null, measured: number | null, words: string): ClaimRow | null =>
    claimed && measured !== null && claimed > 0
      ? {
          test,
          figure,
          claimed,
          measured,
          ratio: measured / claimed,
          difference: null,
          flag: flagOf(Math.abs(measured / claimed - 1), 'share'),
          how: words,
        }
      : null
  if (figure === 'rotation')
    return share(fan.ratedRpm === null ? null : fan.ratedRpm * atVolts, test.rpm, 'at the test’s voltage')
  if (figure === 'current')
    return share(
      fan.ratedA === null ? null : currentAtVoltage(test.volts, fan.ratedV, fan.ratedA),
      test.currentA,
      'at the test’s voltage',
    )
  if (figure === 'flow')
    return share(
      fan.maxFlowM3s ?? (model ? freeDelivery(model) : null),
      test.flowM3s === null ? null : test.flowM3s / (speed || 1),
      how,
    )
  if (figure === 'pressure')
    return share(
      fan.maxPressurePa ?? (model ? shutOffPressure(model) : null),
      test.pressurePa === null ? null : test.pressurePa / (speed ** 2 || 1),
      how,
    )
  const level =
    test.levelDbA === null
      ? null
      : test.backgroundDbA === null
        ? test.levelDbA
        : minusBackground(test.levelDbA, test.backgroundDbA)
  const claim = model?.claimDbA ?? fan.noiseDbA
  const driven = claim === null ? null : atSpeed(claim, 1, speed)
  if (level === null || driven === null) return null
  const claimed = atDistance(
    driven,
    model?.claimDistanceM ?? fan.noiseDistanceM ?? ASSUMED_M,
    levelDistance(test.levelDistanceM ?? ASSUMED_M),
  )
  return {
    test,
    figure,
    claimed,
    measured: level,
    ratio: 1,
    difference: level - claimed,
    flag: flagOf(Math.abs(level - claimed), 'level'),
    how: `${how}, ${test.levelDistanceM === null ? 'distance not stated' : 'at the test’s distance'}`,
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
    // a curve that was measured on the bench needs no discount
    const measured =
      fan.curveBasis === 'measured' && fan.points.length > 0 && (figure === 'flow' || figure === 'pressure')
    if (known) trusted[figure] = known
    else if (trust === 'discounted' && !measured && others && others.fans >= MIN_SHOWN)
      trusted[figure] = shelfCorrection(others)
  }
  return Object.keys(trusted).length ? { ...fan, trusted } : fan
}

/** A shelf as a plan believes it. */
export const trustedFans = (fans: readonly Fan[], trust: Trust, shown: ShelfShown | null | undefined): Fan[] =>
  trust === 'claims' ? [...fans] : fans.map((f) => trustedFan(f, trust, shown ?? null))
