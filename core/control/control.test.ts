import { describe, expect, test } from 'vitest'
import {
  controlStep,
  curveDuty,
  curveProblem,
  newControl,
  ramped,
  sensorFault,
  type ControlSettings,
  type CurvePoint,
} from './index'

const points: CurvePoint[] = [
  { temperatureC: 30, duty: 0.25 },
  { temperatureC: 50, duty: 0.6 },
  { temperatureC: 65, duty: 1 },
]
const settings: ControlSettings = {
  law: { kind: 'curve', points, hysteresisK: 3 },
  filterTauS: 0,
  rampUpPerS: 0,
  rampDownPerS: 0,
  minDuty: 0.25,
  startDuty: 0.3,
  kickDuty: 1,
  kickS: 0,
  capDuty: 1,
  fanStop: false,
  sensorLowC: -40,
  sensorHighC: 125,
  faultDuty: 1,
}
/** Duties that follow from readings, one a second. */
function drive(s: ControlSettings, readings: readonly (number | null)[]): number[] {
  let state = newControl
  return readings.map((r) => {
    const step = controlStep(s, state, r, 1)
    state = step.state
    return step.duty
  })
}

describe('a curve', () => {
  test('refuses what cannot be driven by, with the reason', () => {
    expect(curveProblem(points)).toBe('')
    expect(curveProblem([points[0]!])).toContain('two points')
    expect(curveProblem([points[1]!, points[0]!])).toContain('Temperatures rise')
    expect(curveProblem([points[0]!, { temperatureC: 60, duty: 0.1 }])).toContain('never falls')
    expect(curveProblem([points[0]!, { temperatureC: 60, duty: 1.2 }])).toContain('0 and 100 %')
    expect(curveProblem([points[0]!, { temperatureC: NaN, duty: 1 }])).toContain('Every point')
    const many = Array.from({ length: 21 }, (_, i) => ({ temperatureC: i, duty: 0 }))
    expect(curveProblem(many)).toContain('20 points at most')
  })
  test('never falls as it gets warmer, and is held at its ends', () => {
    const duties = Array.from({ length: 120 }, (_, i) => curveDuty(points, i))
    for (const [i, d] of duties.entries()) if (i > 0) expect(d).toBeGreaterThanOrEqual(duties[i - 1]!)
    expect([duties[0], duties[119]]).toEqual([0.25, 1])
  })
})

describe('a step', () => {
  test('follows the curve up at once, down only after a fall of the hysteresis', () => {
    // 40 °C: 0.425; 39 °C is held at 40; 36 °C at 39: 0.4075
    const [up, held, down] = drive(settings, [40, 39, 36])
    expect([up, held, down]).toEqual([0.425, 0.425, expect.closeTo(0.4075, 9)])
  })
  test('ramps down slowly, up faster', () => {
    const slow = { ...settings, rampUpPerS: 0.2, rampDownPerS: 0.05, law: { ...settings.law, hysteresisK: 0 } }
    const duties = drive(slow as ControlSettings, [50, 50, 50, 50, 42, 42])
    // from what starts it, 0.3
    const wanted = [0.5, 0.6, 0.6, 0.6]
    wanted.forEach((d, i) => expect(duties[i]).toBeCloseTo(d, 9))
    expect(duties[5]).toBeCloseTo(0.5, 9)
    expect(ramped(0.5, 0.45, 0.2, 0.1, 1)).toBe(0.45)
  })
  test('kicks a fan that stood, over the cap, and ramps from what starts it', () => {
    const kicked: ControlSettings = {
      ...settings,
      law: { kind: 'thermostat', onC: 40, offC: 35, onDuty: 0.8, restDuty: 0 },
      fanStop: true,
      kickS: 2,
      capDuty: 0.6,
      rampUpPerS: 0.1,
    }
    // rest, two steps of the kick, then from 0.3 upwards by a tenth a second to the cap
    const duties = drive(kicked, [32, 41, 41, 41, 41, 41, 41, 34])
    const wanted = [0, 1, 1, 0.4, 0.5, 0.6, 0.6, 0]
    duties.forEach((d, i) => expect(d).toBeCloseTo(wanted[i]!, 9))
  })
  test('goes to the safe duty while the sensor cannot be believed, and back', () => {
    const duties = drive(settings, [40, null, -127, 40.5])
    expect(duties.slice(0, 3)).toEqual([0.425, 1, 1])
    expect(duties[3]).toBeCloseTo(0.43375, 9)
    // a leap of 30 K in a second is none of a sensor's
    expect(sensorFault(70, -40, 125, 40, 1)).toBe(true)
    expect(sensorFault(45, -40, 125, 40, 1)).toBe(false)
    // one that stays is believed when it could have come about
    expect(drive(settings, [40, 64, 64, 64]).map((d) => d < 1)).toEqual([true, false, false, true])
  })
  test('a timer runs its minutes of every hour, whatever the sensor shows', () => {
    const timer: ControlSettings = {
      ...settings,
      law: { kind: 'timer', onS: 3, everyS: 10, onDuty: 0.5, restDuty: 0 },
      fanStop: true,
      startDuty: 0.3,
    }
    const duties = drive(
      timer,
      Array.from({ length: 20 }, () => null),
    )
    expect(duties.map((d) => (d > 0 ? 1 : 0)).join('')).toBe('11100000001110000000')
  })
  test('replayed on what it gave it gives the same', () => {
    const readings = Array.from({ length: 200 }, (_, i) => 40 + 15 * Math.sin(i / 20))
    expect(drive(settings, readings)).toEqual(drive(settings, readings))
  })
})
