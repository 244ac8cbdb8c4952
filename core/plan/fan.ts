import { estimatedBand, highestPressure, lastFlow, makeCurve, scaleCurve, speedRatio, type FanCurve } from '../fan'
import { currentAtVoltage } from '../fan'
import { START_CURRENT_FACTOR } from '../power'
import type { CurveBasis, Fan } from './document'

/** Doubt of pressure at a flow: a sheet's curve ±10 %, own measurement ±5 %. Common practice, no source. */
const curveDoubt: Record<Exclude<CurveBasis, 'estimated'>, number> = { curve: 0.1, claim: 0.1, measured: 0.05 }
/** Allowed window of a fan whose sheet is silent, share of rated. Common practice, no source. */
const WINDOW = 0.1
/** Start and lowest running voltage where the sheet is silent, share of rated (12 V fans start at 4 to 7 V and run down to 3 to 5 V). Common practice, no source. */
const START_SHARE = 0.58
const RUN_SHARE = 0.42

export interface FanCurves { low: FanCurve, middle: FanCurve, high: FanCurve, basis: CurveBasis }
export type FanModelResult = { ok: true, model: FanModel } | { ok: false, reason: string }

/** A fan ready to be computed with: curves with their band, and what the sheet leaves open filled with usual values. */
export interface FanModel {
  fan: Fan
  curves: FanCurves
  minV: number
  maxV: number
  startV: number
  startKnown: boolean
  interceptV: number
}

/**
 * Prepares a fan: its curve through the points, or estimated from free delivery and shut-off pressure.
 * @returns the reason when neither is there: a curve is never invented from one number
 */
export function modelFan(fan: Fan): FanModelResult {
  const curves = fanCurves(fan)
  if (typeof curves === 'string') return { ok: false, reason: curves }
  return {
    ok: true, model: {
      fan, curves, interceptV: fan.interceptV ?? 0, minV: fan.minV ?? RUN_SHARE * fan.ratedV, maxV: fan.maxV ?? (1 + WINDOW) * fan.ratedV,
      startV: fan.startV ?? START_SHARE * fan.ratedV, startKnown: fan.startV !== null,
    },
  }
}

function fanCurves(fan: Fan): FanCurves | string {
  if (fan.points.length > 0) {
    const made = makeCurve(fan.points.map(x => ({ q: x.flowM3s, p: x.pressurePa })))
    if (!made.ok) return made.message
    if (highestPressure(made.curve) <= 0 || lastFlow(made.curve) <= 0) return 'The curve has no pressure or no flow.'
    const basis = fan.curveBasis === 'estimated' ? 'curve' : fan.curveBasis
    const d = curveDoubt[basis]
    return { middle: made.curve, low: scaleCurve(made.curve, 1 - d / 2, 1 - d), high: scaleCurve(made.curve, 1 + d / 2, 1 + d), basis }
  }
  if (!fan.maxFlowM3s || !fan.maxPressurePa) return 'It needs a curve, or free delivery and shut-off pressure.'
  const band = estimatedBand(fan.kind, fan.maxPressurePa, fan.maxFlowM3s)
  return band.low && band.middle && band.high
    ? { low: band.low, middle: band.middle, high: band.high, basis: 'estimated' }
    : 'Free delivery and shut-off pressure must be above zero.'
}

/** Free delivery at the sheet's voltage, m3/s. */
export const freeDelivery = (model: FanModel) => lastFlow(model.curves.middle)
/** Highest pressure at the sheet's voltage, Pa. */
export const shutOffPressure = (model: FanModel) => highestPressure(model.curves.middle)

/** Speed ratio at a voltage; 0 below the lowest running voltage. The lowest voltage stands a rounding error of 1e-9. */
export const driveSpeed = (model: FanModel, volts: number) => speedRatio(volts, model.fan.ratedV, model.interceptV, model.minV - 1e-9)

/** Running current of one fan at a voltage, A; null where the sheet has none. */
export const fanCurrent = (model: FanModel, volts: number) => model.fan.ratedA === null ? null : currentAtVoltage(volts, model.fan.ratedV, model.fan.ratedA)
/** Start current of one fan at a voltage, A: twice the label where nothing was measured. */
export const fanStartCurrent = (model: FanModel, volts: number) => model.fan.ratedA === null ? null : START_CURRENT_FACTOR * model.fan.ratedA * volts / model.fan.ratedV

/** Hub diameter over blade-tip diameter, and blade-tip diameter over frame, of small axial fans. Common practice, no source. */
const HUB_SHARE = 0.42
const TIP_SHARE = 0.93
/** Blade-tip diameter, m (estimated from the frame). */
export const impellerDiameter = (fan: Fan) => TIP_SHARE * fan.frameM
/** Swept area less hub, m2 (estimated from the frame). */
export const sweptArea = (fan: Fan) => Math.PI / 4 * (TIP_SHARE * fan.frameM) ** 2 * (1 - HUB_SHARE ** 2)
