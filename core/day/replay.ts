import { controlStep, newControl, type ControlSettings } from '#core/control'

/** What a planned control would have done on a run that was logged. */

export interface ReplayInput {
  /** s, rising */
  timesS: ArrayLike<number>
  /** what its sensor showed, degC; NaN: no value */
  temperatureC: ArrayLike<number>
  /** what the real controller put out, 0..1; null where it was not logged */
  dutyLogged: ArrayLike<number> | null
}
export interface Replay {
  duty: Float64Array
  fault: Uint8Array
  onS: number
  starts: number
  /** gaps longer than three usual steps, each from and to, s: the control goes to its safe duty there */
  gaps: { fromS: number; toS: number }[]
  /** mean of the difference to what was logged, 0..1; null without */
  offBy: number | null
}

/** A sensor without a new value for so many periods is a fault. Handbook control 4. */
const STALE_PERIODS = 3

/** The middle of the steps between rows, s. */
function usualStep(times: ArrayLike<number>): number {
  const steps = Array.from({ length: times.length - 1 }, (_, i) => times[i + 1]! - times[i]!).toSorted(
    (a, b) => a - b,
  )
  return steps[Math.floor(steps.length / 2)] ?? 1
}

/**
 * A log driven through a control, row by row.
 * @param settings as they are stepped (`settled`)
 * Reference: handbook control 2: the step is pure, so that it can be replayed
 */
export function replay(settings: ControlSettings, { timesS, temperatureC, dutyLogged }: ReplayInput): Replay {
  const n = timesS.length
  const period = usualStep(timesS)
  const duty = new Float64Array(n)
  const fault = new Uint8Array(n)
  const gaps: Replay['gaps'] = []
  let state = newControl
  let [onS, starts, off, compared] = [0, 0, 0, 0]
  for (let i = 0; i < n; i++) {
    const dt = i === 0 ? period : timesS[i]! - timesS[i - 1]!
    if (i > 0 && dt > STALE_PERIODS * period) {
      gaps.push({ fromS: timesS[i - 1]!, toS: timesS[i]! })
      // nobody knew anything in between
      const blind = controlStep(settings, state, null, dt - period)
      if (blind.duty > 0) onS += dt - period
      state = blind.state
    }
    const stepS = Math.min(dt, period) || period
    const reading = temperatureC[i]!
    const turned = state.duty > 0
    const step = controlStep(settings, state, Number.isFinite(reading) ? reading : null, stepS)
    state = step.state
    duty[i] = step.duty
    fault[i] = step.fault ? 1 : 0
    if (step.duty > 0) onS += stepS
    if (step.duty > 0 && !turned) starts++
    const logged = dutyLogged?.[i]
    if (logged !== undefined && Number.isFinite(logged)) {
      off += Math.abs(step.duty - logged)
      compared++
    }
  }
  return { duty, fault, onS, starts, gaps, offBy: compared ? off / compared : null }
}
