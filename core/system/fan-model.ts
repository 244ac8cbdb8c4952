import { annulusArea, frameOf } from '#core/fit'
import {
  currentAtVoltage,
  estimatedBand,
  estimateFromLabel,
  highestPressure,
  lastFlow,
  makeCurve,
  pressureAt,
  scaleCurve,
  speedFromDuty,
  speedRatio,
  type FanCurve,
} from '#core/fan'
import { bearingLife, HALVING_K } from '#core/heat'
import { powerToPressure, soneToDbA } from '#core/noise'
import { START_CURRENT_FACTOR } from '#core/power'
import type { CurveBasis, Fan, FanPoint } from '#core/document'
import { deliveredRange, type DeliveredRange } from './curve-uncertainty'

/** Allowed window of a fan whose sheet is silent, share of rated. Common practice, no source. */
const WINDOW = 0.1
/**
 * Where the sheet is silent, as shares of rated: the voltage that surely starts it (the upper end of what is usual), and
 * the one under which it surely stands (the lower end). 12 V fans start at 4 to 7 V and run down to 3 to 5 V, 24 V ones
 * 8 to 14 and 7 to 12, 5 V ones 3 to 4 and 2.5 to 3.5. Common practice, no source.
 */
const silentShares = (ratedV: number) => (ratedV < 8 ? { start: 0.8, run: 0.5 } : { start: 0.58, run: 0.25 })
/** Lowest running voltage over start voltage, where that is known (the same figures). */
const RUN_OVER_START = 0.72
/**
 * Lowest duty of a 4-wire fan whose sheet is silent, and the share of full speed there. docs/physics.md, control: 30 %
 * or less (from memory).
 */
const MIN_DUTY = 0.3
/**
 * Exponent of power over speed when the supply stays and the duty falls: that of the same fan slowed by voltage, 1 +
 * 1.3. Common practice, no source.
 */
const DUTY_POWER_EXPONENT = 2.3
/** Distance that sone ratings belong to, m. Fan industry, from memory. */
const SONE_DISTANCE_M = 1.5
/** Distance that a claimed sound power is turned into a level at, m. */
const POWER_DISTANCE_M = 1

/** Ends of a curve's doubt: what the fan delivers of it, and (of an estimated one) what shape it has. */
export type CurveEnd = 'low' | 'middle' | 'high' | 'shapeLow' | 'shapeHigh'
export interface FanCurves extends Record<CurveEnd, FanCurve> {
  basis: CurveBasis
  /** what the fan delivers of its middle curve */
  delivered: DeliveredRange
  /** what of its label the curve is estimated from, in words; '' where a curve or both its ends are known */
  fromLabel: string
}
export type FanModelResult = { ok: true; model: FanModel } | { ok: false; reason: string }

/** Curves that a sheet gives at another voltage, brought to rated speed, with the speed ratio they were taken at. */
interface OtherCurves {
  volts: number
  speed: number
  curves: FanCurves
}

/** A fan ready to be computed with: curves with their band, and what the sheet leaves open filled with usual values. */
export interface FanModel {
  fan: Fan
  /** at rated voltage */
  curves: FanCurves
  /** at other voltages, rising; empty for most fans */
  others: OtherCurves[]
  /** mixed curves that were needed already, by voltage */
  mixed: Map<number, Partial<Record<CurveEnd, FanCurve>>>
  minV: number
  maxV: number
  startV: number
  startKnown: boolean
  /** the lowest and the highest voltage are the sheet's, not assumed */
  minKnown: boolean
  maxKnown: boolean
  interceptV: number
  /** the noise claim and its distance, sone converted; null where the sheet has neither */
  claimDbA: number | null
  claimDistanceM: number | null
  /** the claim was a loudness in sone */
  fromSone: boolean
}

/**
 * Prepares a fan: its curve through the points, or estimated from free delivery and shut-off pressure; further curves
 * teach how speed follows voltage and how the shape changes.
 * Where not even the two ends are there, the label (size, current, speed) gives them with a wide range.
 * @returns the reason when what was typed makes no curve
 */
export function modelFan(fan: Fan): FanModelResult {
  const curves = fanCurves(fan)
  if (typeof curves === 'string') return { ok: false, reason: curves }
  const free = lastFlow(curves.middle)
  const others = fan.curves
    .filter((c) => c.points.length > 1 && c.volts > 0 && c.volts !== fan.ratedV)
    .toSorted((a, b) => a.volts - b.volts)
    .flatMap((c): OtherCurves[] => {
      const made = bandAround(c.points, c.basis)
      if (typeof made === 'string') return []
      const speed = lastFlow(made.middle) / free
      const back = (curve: FanCurve) => scaleCurve(curve, 1 / speed, 1 / speed ** 2)
      return [
        {
          volts: c.volts,
          speed,
          curves: eachEnd(made, back),
        },
      ]
    })
  const silent = silentShares(fan.ratedV)
  const fromSone = fan.noiseDbA === null && fan.noiseSone !== null && fan.noiseSone > 0
  return {
    ok: true,
    model: {
      fan,
      curves,
      others,
      mixed: new Map(),
      interceptV: fan.interceptV ?? 0,
      // one that starts at a known voltage runs on to the usual share of it
      minV: fan.minV ?? (fan.startV === null ? silent.run * fan.ratedV : fan.startV * RUN_OVER_START),
      maxV: fan.maxV ?? (1 + WINDOW) * fan.ratedV,
      startV: fan.startV ?? silent.start * fan.ratedV,
      startKnown: fan.startV !== null,
      minKnown: fan.minV !== null,
      maxKnown: fan.maxV !== null,
      ...levelClaim(fan),
      fromSone,
    },
  }
}

/**
 * The level that a sheet claims, as a pressure level at a distance: sone converted, a sound power spread over a sphere
 * of one metre.
 */
function levelClaim(fan: Fan): Pick<FanModel, 'claimDbA' | 'claimDistanceM'> {
  if (fan.noiseDbA !== null)
    return fan.noiseIsPower
      ? {
          claimDbA: powerToPressure(fan.noiseDbA, POWER_DISTANCE_M, 'sphere'),
          claimDistanceM: POWER_DISTANCE_M,
        }
      : { claimDbA: fan.noiseDbA, claimDistanceM: fan.noiseDistanceM }
  return fan.noiseSone !== null && fan.noiseSone > 0
    ? { claimDbA: soneToDbA(fan.noiseSone), claimDistanceM: fan.noiseDistanceM ?? SONE_DISTANCE_M }
    : { claimDbA: null, claimDistanceM: fan.noiseDistanceM }
}

/** A curve through points with the band of its source. */
function bandAround(
  points: readonly FanPoint[],
  basis: Exclude<CurveBasis, 'estimated'>,
  share: number | null = null,
): FanCurves | string {
  const made = makeCurve(points.map((x) => ({ q: x.flowM3s, p: x.pressurePa })))
  if (!made.ok) return made.message
  if (highestPressure(made.curve) <= 0 || lastFlow(made.curve) <= 0)
    return 'The curve has no pressure or no flow.'
  const delivered = basis === 'measured' && share !== null ? { low: 1 - share, high: 1 + share } : undefined
  return around({ middle: made.curve, shapeLow: made.curve, shapeHigh: made.curve }, basis, delivered)
}

const atSpeedOf = (curve: FanCurve, n: number) => scaleCurve(curve, n, n * n)

/** Curves that are worked out when they are asked for: most fans of a large shelf are looked at in the middle only. */
function curvesOf(about: Omit<FanCurves, CurveEnd>, of: (end: CurveEnd) => FanCurve): FanCurves {
  const known: Partial<Record<CurveEnd, FanCurve>> = {}
  const at = (end: CurveEnd) => (known[end] ??= of(end))
  return {
    ...about,
    get low() {
      return at('low')
    },
    get middle() {
      return at('middle')
    },
    get high() {
      return at('high')
    },
    get shapeLow() {
      return at('shapeLow')
    },
    get shapeHigh() {
      return at('shapeHigh')
    },
  }
}
const about = ({ basis, delivered, fromLabel }: FanCurves) => ({ basis, delivered, fromLabel })

/** A curve with the band of what the fan delivers of it. */
function around(
  shapes: Pick<FanCurves, 'middle' | 'shapeLow' | 'shapeHigh'>,
  basis: CurveBasis,
  delivered: DeliveredRange = deliveredRange[basis],
  fromLabel = '',
): FanCurves {
  return curvesOf({ basis, delivered, fromLabel }, (end) =>
    end === 'low'
      ? atSpeedOf(shapes.shapeLow, delivered.low)
      : end === 'high'
        ? atSpeedOf(shapes.shapeHigh, delivered.high)
        : shapes[end],
  )
}

/** The same change of every curve. */
const eachEnd = (c: FanCurves, change: (curve: FanCurve) => FanCurve): FanCurves =>
  curvesOf(about(c), (end) => change(c[end]))

function sheetCurves(fan: Fan): FanCurves | string {
  if (fan.points.length > 0)
    return bandAround(fan.points, fan.curveBasis === 'estimated' ? 'curve' : fan.curveBasis, fan.curveShare)
  const printed = fan.maxFlowM3s !== null && fan.maxPressurePa !== null
  const label = printed ? null : estimateFromLabel(fan)
  const band = estimatedBand(
    fan.kind,
    label?.maxPressure ?? fan.maxPressurePa ?? 0,
    label?.maxFlow ?? fan.maxFlowM3s ?? 0,
  )
  if (!band.low || !band.middle || !band.high) return 'Free delivery and shut-off pressure must be above zero.'
  const shapes = { middle: band.middle, shapeLow: band.low, shapeHigh: band.high }
  return label
    ? around(shapes, 'estimated', { low: label.low, high: label.high }, label.from)
    : around(shapes, 'estimated')
}

/** A figure without a test of its own. */
const untested = { middle: 1, low: 1, high: 1 }

/**
 * The sheet's curves, corrected by what tests have shown where the plan wants that: speed moves flow by n and pressure
 * by n²; what was not tested stays as claimed, with the doubt of a claim. Tests of this very fan are doubted as
 * measurements, what the shelf has shown by how widely it scatters.
 */
function fanCurves(fan: Fan): FanCurves | string {
  const curves = sheetCurves(fan)
  // a curve measured at rated voltage holds the fan's speed, flow and pressure as they are
  const measured = fan.curveBasis === 'measured' && fan.points.length > 0
  if (typeof curves === 'string' || !fan.trusted || measured) return curves
  const { rotation: n = untested, flow = untested, pressure = untested } = fan.trusted
  const change = (curve: FanCurve) => scaleCurve(curve, n.middle * flow.middle, n.middle ** 2 * pressure.middle)
  const shapes = eachEnd(curves, change)
  const corrects = fan.trusted.flow ?? fan.trusted.rotation
  if (!corrects) return shapes
  // what claims are worth on this shelf says nothing of a fan without a claim
  if (curves.fromLabel && corrects.from === 'shelf') return curves
  const end = (which: 'low' | 'high') =>
    ((n[which] * flow[which]) / (n.middle * flow.middle)) *
    (corrects.from === 'own' ? deliveredRange.measured[which] : 1)
  const basis = curves.basis === 'estimated' || fan.trusted.flow?.from !== 'own' ? curves.basis : 'measured'
  return around(shapes, basis, { low: end('low'), high: end('high') })
}

/** Free delivery at the sheet's voltage, m3/s. */
export const freeDelivery = (model: FanModel) => lastFlow(model.curves.middle)
/** Highest pressure at the sheet's voltage, Pa. */
export const shutOffPressure = (model: FanModel) => highestPressure(model.curves.middle)

/**
 * Speed ratio at a voltage; 0 below the lowest running voltage (which stands a rounding error of 1e-9). Between a
 * sheet's own curves the speed is interpolated.
 * @param volts V
 */
export function driveSpeed(model: FanModel, volts: number): number {
  const { others, minV, interceptV, fan } = model
  if (!others.length) return speedRatio(volts, fan.ratedV, interceptV, minV - 1e-9)
  if (volts < minV - 1e-9) return 0
  const known = [...others.map((o) => ({ v: o.volts, s: o.speed })), { v: fan.ratedV, s: 1 }].sort(
    (a, b) => a.v - b.v,
  )
  const at = known.findIndex((k) => k.v >= volts)
  // below the lowest: on the line to the intercept; above the highest: on with the last slope from the intercept
  if (at <= 0)
    return at === 0
      ? (known[0]!.s * Math.max(0, volts - interceptV)) / (known[0]!.v - interceptV)
      : (known.at(-1)!.s * (volts - interceptV)) / (known.at(-1)!.v - interceptV)
  const low = known[at - 1]!
  const high = known[at]!
  return low.s + ((high.s - low.s) * (volts - low.v)) / (high.v - low.v)
}

const BLEND_POINTS = 25
/** Mixed curves that a model keeps, for searches that come back to the same voltages. */
const MIXES_KEPT = 64
/**
 * A fan's curve at rated speed as it is at a voltage: its own, or a mix of the two nearest that the sheet gives.
 * A driven curve is this one scaled by the affinity laws.
 * @param volts V
 */
export function curveAt(model: FanModel, volts: number, which: CurveEnd): FanCurve {
  if (!model.others.length || volts === model.fan.ratedV) return model.curves[which]
  const kept = model.mixed.get(volts)?.[which]
  if (kept) return kept
  const known = [...model.others, { volts: model.fan.ratedV, speed: 1, curves: model.curves }].sort(
    (a, b) => a.volts - b.volts,
  )
  const at = known.findIndex((k) => k.volts >= volts)
  if (at <= 0) return known[at === 0 ? 0 : known.length - 1]!.curves[which]
  const [a, b] = [known[at - 1]!, known[at]!]
  const curve = mixCurves(a.curves[which], b.curves[which], (volts - a.volts) / (b.volts - a.volts))
  if (model.mixed.size < MIXES_KEPT) model.mixed.set(volts, { ...model.mixed.get(volts), [which]: curve })
  return curve
}

/** Two curves mixed at equal flow; a share of 1 is the second. */
function mixCurves(x: FanCurve, y: FanCurve, share: number): FanCurve {
  if (share === 1) return y
  const first = Math.max(x.q[0]!, y.q[0]!)
  const last = Math.min(lastFlow(x), lastFlow(y))
  const points = Array.from(
    { length: BLEND_POINTS },
    (_, i) => first + ((last - first) * i) / (BLEND_POINTS - 1),
  ).map((q) => ({ q, p: Math.max(0, (1 - share) * (pressureAt(x, q) ?? 0) + share * (pressureAt(y, q) ?? 0)) }))
  const made = makeCurve(points)
  return made.ok ? made.curve : x
}

/** Lowest duty that keeps a fan turning, and its speed there. */
export const lowestDuty = ({ fan }: FanModel) => ({
  duty: fan.pwmMinDuty ?? MIN_DUTY,
  speed: fan.pwmMinSpeed ?? fan.pwmMinDuty ?? MIN_DUTY,
  known: fan.pwmMinDuty !== null,
})

/**
 * Share of the full speed that a duty on the PWM wire gives; 1 without one, also where the fan is known to have no such
 * wire, 0 below the lowest duty (where the behaviour depends on the fan).
 * @param duty 0..1
 */
export function dutySpeed(model: FanModel, duty: number | null): number {
  const { wires } = model.fan
  if (duty === null || (wires !== null && wires < 4)) return 1
  const low = lowestDuty(model)
  return speedFromDuty(duty, low.duty, low.speed, 1) ?? 0
}

/**
 * Speed ratio of a fan at a voltage and a duty.
 * @param volts V
 * @param duty 0..1
 */
export const drivenSpeed = (model: FanModel, volts: number, duty: number | null) =>
  driveSpeed(model, volts) * dutySpeed(model, duty)

/**
 * Running current of one fan at a voltage and duty, A; null where the sheet has none.
 * @param volts V
 * @param duty 0..1
 */
export function fanCurrent(model: FanModel, volts: number, duty: number | null = null): number | null {
  const { fan } = model
  if (fan.ratedA === null) return null
  const full = currentAtVoltage(volts, fan.ratedV, fan.ratedA * (fan.trusted?.current?.middle ?? 1))
  return duty === null ? full : full * dutySpeed(model, duty) ** DUTY_POWER_EXPONENT
}
/**
 * Start current of one fan at a voltage, A: measured, else twice the label.
 * @param volts V
 */
export function fanStartCurrent(model: FanModel, volts: number): number | null {
  const { fan } = model
  const tested = fan.tests
    .filter((t) => t.startA !== null && t.volts > 0)
    .map((t) => (t.startA! * volts) / t.volts)
  if (tested.length) return Math.max(...tested)
  return fan.ratedA === null ? null : (START_CURRENT_FACTOR * fan.ratedA * volts) / fan.ratedV
}

/** Hub diameter over blade-tip diameter, and blade-tip diameter over frame, of small axial fans. Common practice, no source. */
const HUB_SHARE = 0.42
const TIP_SHARE = 0.93
/** Blade-tip diameter, m (estimated from the frame). */
export const impellerDiameter = (fan: Fan) => TIP_SHARE * fan.frameM
/** Hub diameter, m (estimated from the frame). */
export const hubDiameter = (fan: Fan) => HUB_SHARE * impellerDiameter(fan)
/** Swept area less hub, m2 (estimated from the frame). */
export const sweptArea = (fan: Fan) => annulusArea(impellerDiameter(fan), hubDiameter(fan))

/** Mounting holes, centre to centre, m: the sheet's, else the usual pattern of an axial frame; null for an unusual one. */
export const holeSpacing = (fan: Fan): number | null =>
  fan.holeSpacingM ?? (fan.kind === 'axial' ? (frameOf(fan.frameM)?.spacingM ?? null) : null)

/** What a calliper showed, else the sheet's thickness, m. */
export const trueThickness = (fan: Fan) => fan.thicknessMeasuredM ?? fan.thicknessM

/** Temperature assumed for a life that states none, degC. Common practice, no source. */
const LIFE_STATED_C = 40

/** Bearing life at the fan's air temperature, h, in the short and the long view; null where the sheet states no life. */
export function lifeAt({ lifeH, lifeC }: Fan, airC: number): { low: number; high: number } | null {
  if (lifeH === null) return null
  const [a, b] = [HALVING_K.short, HALVING_K.long].map((k) =>
    bearingLife(lifeH, lifeC ?? LIFE_STATED_C, airC, k),
  )
  return { low: Math.min(a!, b!), high: Math.max(a!, b!) }
}
