import type { AirState } from '#core/air'
import { fitResistance, pathExponent } from '#core/airpath'
import { pressureAt, slopeAt, type Resistance } from '#core/fan'
import { airflowWithWallLoss } from '#core/need'
import type { Calibration, Fan, PlanDocument } from '#core/document'
import { curveUncertainty } from './curve-uncertainty'
import { curveAt, driveSpeed, modelFan } from './fan-model'
import { figure, input, type Figure } from '#core/figure'
import { pathDrop, scalePath, type PathModel } from './path'

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
  /** exponent between the lowest and the highest point; 1 to 2 is believable */
  exponent: number | null
}

/** Doubt of a delivered flow by vane anemometer times area, of a flow from heat and rise. Common practice, no source. */
const FLOW_UNCERTAINTY = 0.1
const RISE_UNCERTAINTY = 0.12
const MIN_UNCERTAINTY = 0.05
/** Factors outside this range are told: the element list is wrong rather than the guess. Common practice, no source. */
const BELIEVABLE = [0.2, 5] as const

interface Point {
  flow: number
  pressure: number
  uncertainty: number
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
    uncertainty: Math.hypot(
      Math.abs((x * slope) / p - 2) * flowUncertainty,
      curveUncertainty[made.model.curves.basis],
    ),
  }
}

function measuredPoints(
  plan: PlanDocument,
  cal: Calibration,
  air: AirState,
  fans: readonly Fan[],
): Point[] | string {
  if (cal.kind === 'pairs')
    return cal.points.length
      ? cal.points.map((p) => ({ flow: p.flowM3s, pressure: p.pressurePa, uncertainty: MIN_UNCERTAINTY }))
      : 'Add a flow and the pressure over the path.'
  if (cal.kind === 'flow') {
    if (!cal.flowM3s) return 'Type the flow that was measured.'
    const point = pointOfFan(cal, cal.flowM3s, FLOW_UNCERTAINTY, air, fans)
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
  const point = pointOfFan(cal, flow, RISE_UNCERTAINTY, air, fans)
  return typeof point === 'string' ? point : [point]
}

const words = {
  flow: 'from one delivered flow',
  pairs: 'from flow and pressure pairs',
  rise: 'from heat and rise',
}

/**
 * Scales the guessed path by what was measured on the real one: one factor on every loss, by least squares.
 * @param path the guess
 * @returns the report, and the path that the plan uses (the guess where nothing is calibrated or it is not used)
 */
export function calibrate(
  plan: PlanDocument,
  path: PathModel,
  air: AirState,
  fans: readonly Fan[],
): { path: PathModel; report: CalibrationReport | null } {
  const cal = plan.calibration
  if (!cal) return { path, report: null }
  const blank = (problem: string): CalibrationReport => ({
    used: cal.used,
    problem,
    factor: null,
    residuals: [],
    ownFit: null,
    exponent: null,
    figure: figure(
      'path.factor',
      'Real path over the guess',
      'number',
      null,
      'k = Σ Δp·Δp_guess / Σ Δp_guess²',
      'least squares',
      { note: problem },
    ),
  })
  if (!path.complete) return { path, report: blank('The path still lacks a size.') }
  const points = measuredPoints(plan, cal, air, fans)
  if (typeof points === 'string') return { path, report: blank(points) }
  const guesses = points.map((p) => pathDrop(path, p.flow))
  const square = guesses.reduce((s, g) => s + g * g, 0)
  const factor = square > 0 ? points.reduce((s, p, i) => s + p.pressure * guesses[i]!, 0) / square : 0
  if (!(factor > 0)) return { path, report: blank('The points give the path no resistance.') }
  const scatter = Math.sqrt(
    points.reduce((s, p, i) => s + (p.pressure / (factor * guesses[i]!) - 1) ** 2, 0) /
      Math.max(1, points.length - 1),
  )
  const uncertainty = Math.max(
    MIN_UNCERTAINTY,
    points.length > 1 ? (2 * scatter) / Math.sqrt(points.length) : 0,
    Math.max(...points.map((p) => p.uncertainty)) / Math.sqrt(points.length),
  )
  const ends = points.toSorted((a, b) => a.flow - b.flow)
  const note =
    factor < BELIEVABLE[0] || factor > BELIEVABLE[1]
      ? 'So far from the guess that an element is probably missing, or the reading is wrong.'
      : 'The share of each element stays as guessed; only the sum was measured.'
  return {
    path: cal.used ? scalePath(plan, path, factor, uncertainty) : path,
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
      ownFit:
        points.length > 1
          ? fitResistance(
              points.map((p) => p.flow),
              points.map((p) => p.pressure),
            )
          : null,
      exponent:
        ends.length > 1
          ? pathExponent(ends[0]!.flow, ends[0]!.pressure, ends.at(-1)!.flow, ends.at(-1)!.pressure)
          : null,
      figure: figure(
        'path.factor',
        `Real path over the guess, ${words[cal.kind]}`,
        'number',
        factor,
        'k = Σ Δp·Δp_guess / Σ Δp_guess²',
        'least squares of one factor over the guessed path',
        {
          basis: 'measured',
          low: factor * (1 - uncertainty),
          high: factor * (1 + uncertainty),
          inputs: points.flatMap((p, i) => [
            input('Q', `flow ${i + 1}`, p.flow, 'flow'),
            input('Δp', `measured ${i + 1}`, p.pressure, 'pressure'),
            input('Δp_guess', `guessed ${i + 1}`, guesses[i]!, 'pressure'),
          ]),
          note,
        },
      ),
    },
  }
}
