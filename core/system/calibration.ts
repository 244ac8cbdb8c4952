import type { AirState } from '#core/air'
import { fitResistance, pathExponent } from '#core/airpath'
import { pressureAt, slopeAt, type Resistance } from '#core/fan'
import { instrumentHalfWidth } from '#core/measure'
import { airflowWithWallLoss } from '#core/need'
import { normal, seeded, Z95 } from '#core/numeric'
import type { Calibration, Fan, StreamPlan } from '#core/document'
import { curveAt, driveSpeed, modelFan, type CurveEnd, type FanModel } from './fan-model'
import { figure, input, type Figure } from '#core/figure'
import { pathDrop, scalePath, type PathModel } from './path'
import { dropRange } from './path-uncertainty'

/** What measured points and the path's guess say about each other. */
export interface Residual {
  flow: number
  measured: number
  guess: number
  scaled: number
}

export interface CalibrationReport {
  used: boolean
  /** why there is no factor */
  problem: string | null
  factor: number | null
  figure: Figure
  residuals: Residual[]
  /** the measured points' own least-squares curve, to compare with */
  ownFit: Resistance | null
  /** how far both of its numbers are known, 95 times in 100; null for a single point */
  ownRange: Record<'a' | 'b', { low: number; high: number }> | null
  /** exponent between the lowest and the highest point; 1 to 2 is believable */
  exponent: number | null
}

/** Doubt of a flow from heat and rise, share. Common practice, no source. */
const RISE_UNCERTAINTY = 0.12
const MIN_UNCERTAINTY = 0.05
/** Factors outside this range are told: the element list is wrong rather than the guess. Common practice, no source. */
const BELIEVABLE = [0.2, 5] as const

interface Point {
  flow: number
  pressure: number
  /** doubt of the reading, as the share by which the path may resist more */
  uncertainty: number
  /** doubt of the curve of the fan that ran, the same; 0 where the pressure was read */
  fanUncertainty: number
}

/** Doubt of the pressure that a fan makes at a flow at rated speed, as the share by which it may be more. */
function curveDoubtAt(model: FanModel, volts: number, flow: number): number {
  const at = (end: CurveEnd) => pressureAt(curveAt(model, volts, end), flow) ?? 0
  const [low, middle, high] = [at('low'), at('middle'), at('high')]
  return low > 0 ? Math.sqrt(high / low) - 1 : Math.max(1, high / middle - 1)
}

/** Pressure that the running fan makes at the flow measured; the reason where it makes none. */
function pointOfFan(
  cal: Calibration,
  flow: number,
  flowUncertainty: number,
  air: AirState,
  fans: readonly Fan[],
): Point | string {
  const fan = fans.find((f) => f.id === cal.fanId)
  if (!fan) return 'Choose the fan that ran.'
  const made = modelFan(fan)
  if (!made.ok) return made.reason
  const volts = cal.volts ?? fan.ratedV
  const speed = driveSpeed(made.model, volts)
  const curve = curveAt(made.model, volts, 'middle')
  if (!(speed > 0)) return 'At that voltage this fan stands still.'
  const x = flow / (cal.count * speed)
  const p = pressureAt(curve, x)
  const slope = slopeAt(curve, x)
  if (p === null || slope === null)
    return 'That is more air than this fan delivers freely at that voltage: one of the two is wrong.'
  const scale = speed ** 2 * air.densityRatio
  if (!(p > 0)) return 'At that flow the fan makes no pressure: the path would have no resistance.'
  return {
    flow,
    pressure: scale * p,
    uncertainty: Math.abs((x * slope) / p - 2) * flowUncertainty,
    fanUncertainty: curveDoubtAt(made.model, volts, x),
  }
}

function measuredPoints(
  plan: StreamPlan,
  cal: Calibration,
  air: AirState,
  fans: readonly Fan[],
): Point[] | string {
  if (cal.kind === 'pairs')
    return cal.points.length
      ? cal.points.map((p) => ({
          flow: p.flowM3s,
          pressure: p.pressurePa,
          uncertainty: MIN_UNCERTAINTY,
          fanUncertainty: 0,
        }))
      : 'Add a flow and the pressure over the path.'
  if (cal.kind === 'flow') {
    if (!cal.flowM3s) return 'Type the flow that was measured.'
    const point = pointOfFan(cal, cal.flowM3s, cal.flowDoubt ?? instrumentHalfWidth.flow, air, fans)
    return typeof point === 'string' ? point : [point]
  }
  if (!cal.heatW || !cal.riseK) return 'Type the heat and the rise that were measured.'
  const flow = airflowWithWallLoss(
    cal.heatW,
    plan.job.wallLossWK ?? 0,
    plan.job.ambientC + cal.riseK,
    plan.job.ambientC,
    air.density,
  )
  if (!flow) return 'The walls alone would carry that heat: the rise says nothing about the air.'
  const point = pointOfFan(cal, flow, cal.flowDoubt ?? RISE_UNCERTAINTY, air, fans)
  return typeof point === 'string' ? point : [point]
}

const words = {
  flow: 'from one delivered flow',
  pairs: 'from flow and pressure pairs',
  rise: 'from heat and rise',
}

/** The one factor on every loss that fits the points best, and how sure it is. */
interface Fit {
  points: Point[]
  /** what the guess says at the flows of the points, Pa */
  guesses: number[]
  factor: number
  uncertainty: number
  fanUncertainty: number
}

/** Least squares of one factor. @returns null where the points give the path no resistance */
function fitFactor(path: PathModel, points: Point[]): Fit | null {
  const guesses = points.map((p) => pathDrop(path, p.flow))
  const n = points.length
  const square = guesses.reduce((s, g) => s + g * g, 0)
  const factor = square > 0 ? points.reduce((s, p, i) => s + p.pressure * guesses[i]!, 0) / square : 0
  if (!(factor > 0)) return null
  const misfit = points.reduce((s, p, i) => s + (p.pressure / (factor * guesses[i]!) - 1) ** 2, 0)
  const scatter = Math.sqrt(misfit / Math.max(1, n - 1))
  const uncertainty = Math.max(
    MIN_UNCERTAINTY,
    n > 1 ? (2 * scatter) / Math.sqrt(n) : 0,
    Math.max(...points.map((p) => p.uncertainty)) / Math.sqrt(n),
  )
  const fanUncertainty = Math.max(...points.map((p) => p.fanUncertainty))
  return { points, guesses, factor, uncertainty, fanUncertainty }
}

const FORMULA = 'k = Σ Δp·Δp_guess / Σ Δp_guess²'
function factorFigure(kind: Calibration['kind'], { points, guesses, factor, ...doubt }: Fit): Figure {
  const uncertainty = Math.hypot(doubt.uncertainty, doubt.fanUncertainty)
  const far = factor < BELIEVABLE[0] || factor > BELIEVABLE[1]
  return figure(
    'path.factor',
    `Real path over the guess, ${words[kind]}`,
    'number',
    factor,
    FORMULA,
    'least squares of one factor over the guessed path',
    {
      basis: 'measured',
      ...dropRange(factor, uncertainty),
      inputs: points.flatMap((p, i) => [
        input('Q', `flow ${i + 1}`, p.flow, 'flow'),
        input('Δp', `measured ${i + 1}`, p.pressure, 'pressure'),
        input('Δp_guess', `guessed ${i + 1}`, guesses[i]!, 'pressure'),
      ]),
      note: far
        ? 'So far from the guess that an element is probably missing, or the reading is wrong.'
        : 'The share of each element stays as guessed; only the sum was measured.',
    },
  )
}

/** Cases drawn for the range of the points' own curve. A choice of ours. */
const DRAWS = 200
/** What both numbers of the points' own curve are worth: flows and pressures drawn within their doubt. Reference: JCGM 101 */
function ownRangeOf(points: readonly Point[]): CalibrationReport['ownRange'] {
  const z = normal(seeded(1))
  const off = (p: Point) => 1 + (z() * p.uncertainty) / Z95
  const fits = Array.from({ length: DRAWS }, () =>
    fitResistance(
      points.map((p) => p.flow * off(p)),
      points.map((p) => p.pressure * off(p)),
    ),
  ).filter((f) => f !== null)
  const range = (key: 'a' | 'b') => {
    const sorted = fits.map((f) => f[key]).sort((x, y) => x - y)
    return { low: sorted[Math.floor(0.025 * fits.length)]!, high: sorted[Math.ceil(0.975 * fits.length) - 1]! }
  }
  return fits.length < DRAWS ? null : { a: range('a'), b: range('b') }
}

/** The points' own curve and exponent, to compare with; null for a single point. */
function ownCurve(points: readonly Point[]): Pick<CalibrationReport, 'ownFit' | 'ownRange' | 'exponent'> {
  if (points.length < 2) return { ownFit: null, ownRange: null, exponent: null }
  const ends = points.toSorted((a, b) => a.flow - b.flow)
  const [first, last] = [ends[0]!, ends.at(-1)!]
  return {
    ownFit: fitResistance(
      points.map((p) => p.flow),
      points.map((p) => p.pressure),
    ),
    ownRange: ownRangeOf(points),
    exponent: pathExponent(first.flow, first.pressure, last.flow, last.pressure),
  }
}

/** A calibration that gives no factor, with the reason. */
const withoutFactor = (cal: Calibration, problem: string): CalibrationReport => ({
  used: cal.used,
  problem,
  factor: null,
  residuals: [],
  ownFit: null,
  ownRange: null,
  exponent: null,
  figure: figure('path.factor', 'Real path over the guess', 'number', null, FORMULA, 'least squares', {
    note: problem,
  }),
})

/**
 * Scales the guessed path by what was measured on the real one: one factor on every loss, by least squares.
 * @param path the guess
 * @returns the report, and the path that the plan uses (the guess where nothing is calibrated or it is not used)
 */
export function calibrate(
  plan: StreamPlan,
  path: PathModel,
  air: AirState,
  fans: readonly Fan[],
): { path: PathModel; report: CalibrationReport | null } {
  const cal = plan.calibration
  if (!cal) return { path, report: null }
  if (!path.complete) return { path, report: withoutFactor(cal, 'The path still lacks a size.') }
  const points = measuredPoints(plan, cal, air, fans)
  if (typeof points === 'string') return { path, report: withoutFactor(cal, points) }
  const fit = fitFactor(path, points)
  if (!fit) return { path, report: withoutFactor(cal, 'The points give the path no resistance.') }
  const { guesses, factor, uncertainty, fanUncertainty } = fit
  return {
    path: cal.used
      ? scalePath(plan, path, factor, {
          uncertainty,
          fanUncertainty,
          fanId: fanUncertainty > 0 ? cal.fanId : null,
        })
      : path,
    report: {
      used: cal.used,
      problem: null,
      factor,
      residuals: points.map((p, i) => ({
        flow: p.flow,
        measured: p.pressure,
        guess: guesses[i]!,
        scaled: factor * guesses[i]!,
      })),
      ...ownCurve(points),
      figure: factorFigure(cal.kind, fit),
    },
  }
}
