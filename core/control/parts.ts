/** What a control step is made of. Every function takes what was and gives what is; none keeps anything. */

/**
 * Two thresholds: on from one, off from the other, between them as it was.
 * @param was on before @param temperatureC degC @param onC degC, above `offC` @param offC degC
 * Reference: handbook CT3
 */
export const onOff = (was: boolean, temperatureC: number, onC: number, offC: number): boolean =>
  temperatureC >= onC || (was && temperatureC > offC)

/**
 * The temperature that a curve is read at: up at once, down only after a fall by the width.
 * @param held degC; null in the first step @param widthK K, 0 or more
 * Reference: handbook CT4
 */
export const heldTemperature = (held: number | null, temperatureC: number, widthK: number): number =>
  held === null ? temperatureC : Math.min(Math.max(held, temperatureC), temperatureC + widthK)

/**
 * First-order filter.
 * @param was the filtered value; null in the first step @param value what comes in, in the same unit
 * @param tauS s; 0: no filter @param dtS s
 * Reference: handbook CT5
 */
export const filtered = (was: number | null, value: number, tauS: number, dtS: number): number =>
  was === null || tauS <= 0 ? value : was + (1 - Math.exp(-dtS / tauS)) * (value - was)

/**
 * One step towards a target, no faster than allowed.
 * @param was in any unit @param target in the same unit
 * @param upPerS largest rise a second, above 0 @param downPerS largest fall a second, above 0
 * Reference: handbook CT6
 */
export const ramped = (was: number, target: number, upPerS: number, downPerS: number, dtS: number): number =>
  target > was ? Math.min(target, was + upPerS * dtS) : Math.max(target, was - downPerS * dtS)
/**
 * Time of a ramp, s.
 * @param from in any unit @param to in the same unit @param ratePerS a second, above 0
 * Reference: handbook CT6
 */
export const rampTime = (from: number, to: number, ratePerS: number) => Math.abs(to - from) / ratePerS

/** Slack of time steps, s. */
const ROUNDING_S = 1e-9

/** Whether a fan turns, and how long its kick still lasts. */
export interface StartState {
  turning: boolean
  kickLeftS: number
}
export const atRest: StartState = { turning: false, kickLeftS: 0 }
export interface StartLimits {
  /** keeps it turning; starts it from rest, not below that */
  minDuty: number
  startDuty: number
  kickDuty: number
  kickS: number
  capDuty: number
  /** it may stand still where less than `minDuty` is wanted */
  fanStop: boolean
}
/**
 * Stop, start and kick of a fan. The kick may go over the cap.
 * @param target duty that is wanted, 0..1 @param dtS s
 * @returns the duty that is put out, and whether it comes from a stop or a kick, which no ramp delays
 * Reference: handbook CT7
 */
export function startStep(
  { turning, kickLeftS }: StartState,
  target: number,
  { minDuty, startDuty, kickDuty, kickS, capDuty, fanStop }: StartLimits,
  dtS: number,
): { state: StartState; duty: number; bypass: boolean } {
  if (kickLeftS > ROUNDING_S)
    return { state: { turning: true, kickLeftS: kickLeftS - dtS }, duty: kickDuty, bypass: true }
  const rests = turning ? target < minDuty && fanStop : target < (fanStop ? startDuty : 0)
  if (rests) return { state: atRest, duty: 0, bypass: true }
  // one that may not stand still is started whatever is wanted, above nothing
  if (!turning && target <= 0 && fanStop) return { state: atRest, duty: 0, bypass: true }
  if (!turning && kickS > 0)
    return { state: { turning: true, kickLeftS: kickS - dtS }, duty: kickDuty, bypass: true }
  const duty = Math.min(capDuty, Math.max(minDuty, target))
  return { state: { turning: true, kickLeftS: 0 }, duty, bypass: false }
}

/** A sensor changes no faster, K/s. Common practice, no source (handbook control 4). */
const FASTEST_K_PER_S = 10
/**
 * Whether a reading cannot be believed: none, outside what the sensor can show, or a leap.
 * @param readingC degC; null: none came @param lowestC degC @param highestC degC
 * @param wasC the reading before, degC; null: none
 * Reference: handbook control 4
 */
export function sensorFault(
  readingC: number | null,
  lowestC: number,
  highestC: number,
  wasC: number | null = null,
  dtS = Infinity,
): boolean {
  if (readingC === null || !Number.isFinite(readingC)) return true
  if (readingC < lowestC || readingC > highestC) return true
  return wasC !== null && Math.abs(readingC - wasC) > FASTEST_K_PER_S * dtS
}
