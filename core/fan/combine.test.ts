import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { asSheet, dropOf, operatingPoint } from './operating-point'
import {
  continuedFlow,
  continuedPressure,
  memberFlow,
  parallelOperatingPoint,
  seriesOperatingFlow,
} from './combine'
import { currentAtVoltage, speedFromDuty, speedRatio, voltageForSpeed } from './voltage'
import { dataPlausibility, deliveredClass, staticEfficiency } from './plausibility'
import { estimatedBand } from './estimate'
import { flowPerVolt, leakyBox, pathFromDelivered, pushPullBox } from './box'
import { lastFlow, makeCurve, pressureAt, scaleCurve, slopeAt, type FanCurve } from './curve'
import { motorCurrent, motorSpeed } from './motor'

const curve = (points: [number, number][]): FanCurve => {
  const made = makeCurve(points.map(([q, p]) => ({ q, p })))
  if (!made.ok) throw new Error(made.message)
  return made.curve
}
// invented
const strong = curve([
  [0, 80],
  [0.01, 60],
  [0.02, 30],
  [0.025, 0],
])
const weak = curve([
  [0, 20],
  [0.01, 14],
  [0.02, 0],
])

describe('unlike fans together', () => {
  test('two equal fans agree with the scaled curve', () => {
    const path = { a: 500, b: 40000 }
    expect(parallelOperatingPoint(strong, strong, path, { flap: true })!.total).toBeCloseTo(
      operatingPoint(strong, path, { ...asSheet, parallel: 2 }).flow!,
      9,
    )
    expect(seriesOperatingFlow(strong, strong, path)!).toBeCloseTo(
      operatingPoint(strong, path, { ...asSheet, series: 2 }).flow!,
      9,
    )
  })
  test('the weaker fan on a hard path: shut by its flap, or driven backwards', () => {
    const path = { a: 0, b: 300000 }
    const shut = parallelOperatingPoint(strong, weak, path, { flap: true })!
    expect(shut.second).toBe(0)
    expect(shut.total).toBeCloseTo(operatingPoint(strong, path).flow!, 6)
    const open = parallelOperatingPoint(strong, weak, path, { flap: false })!
    expect(open.second).toBeLessThan(0)
    expect(open.total).toBeLessThan(shut.total)
    expect(memberFlow(weak, 30, { flap: false, reverse: 1e5 })).toBeCloseTo(-Math.sqrt(10 / 1e5), 12)
  })
  test('beyond free delivery a fan brakes with its end slope', () => {
    expect(continuedPressure(weak, 0.025)!).toBeLessThan(0)
    expect(continuedFlow(weak, continuedPressure(weak, 0.03)!)).toBeCloseTo(0.03, 9)
    expect(continuedPressure(weak, 0.01)).toBe(pressureAt(weak, 0.01))
  })
})

describe('boxes', () => {
  test('a sealed box passes all through its intake; a leak takes its share', () => {
    const tight = leakyBox(strong, 60000, 20000, null)!
    expect(tight.wanted).toBeCloseTo(operatingPoint(strong, { a: 0, b: 80000 }).flow!, 9)
    expect(tight.boxPressure).toBeCloseTo(-60000 * tight.wanted ** 2, 6)
    const leaky = leakyBox(strong, 60000, 20000, 240000)!
    expect(leaky.wanted).toBeLessThan(tight.wanted)
    expect(leaky.boxPressure).toBeGreaterThan(tight.boxPressure)
  })
  test('a stronger supply fan puts the box under pressure, a stronger exhaust fan under suction', () => {
    expect(pushPullBox(strong, 20000, weak, 20000, 50000)!.boxPressure).toBeGreaterThan(0)
    expect(pushPullBox(weak, 20000, strong, 20000, 50000)!.boxPressure).toBeLessThan(0)
    expect(pushPullBox(strong, 20000, strong, 20000, 50000)!.boxPressure).toBeCloseTo(0, 6)
  })
  test('the path from one delivered flow gives that flow again', () => {
    const b = pathFromDelivered(strong, 0.015)!
    expect(operatingPoint(strong, { a: 0, b }).flow).toBeCloseTo(0.015, 9)
    expect(pathFromDelivered(strong, 0.03)).toBeNull()
    expect(pathFromDelivered(strong, 0)).toBeNull()
  })
})

describe('voltage, current, motor', () => {
  test('speed and voltage are each other’s inverse above the lowest voltage', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 13, noNaN: true }),
        fc.double({ min: 0, max: 1.5, noNaN: true }),
        (v, v0) => {
          expect(voltageForSpeed(speedRatio(v, 12, v0, 4), 12, v0)).toBeCloseTo(v, 9)
        },
      ),
    )
    expect(speedRatio(3.9, 12, 0, 4)).toBe(0)
    expect(speedRatio(0.5, 12, 1)).toBe(0)
    expect(speedRatio(12, 12, 1)).toBe(1)
  })
  test('current by the power law', () => {
    expect(currentAtVoltage(12, 12, 0.2)).toBe(0.2)
    expect(currentAtVoltage(6, 12, 0.2, 2)).toBeCloseTo(0.05, 12)
  })
  test('the motor obeys its torque balance, or stands still', () => {
    const motor = { resistance: 20, motorConstant: 0.03, frictionTorque: 1e-3, loadCoefficient: 2e-8 }
    const w = (motorSpeed(12, motor) * Math.PI) / 30
    const i = motorCurrent(12, motor)
    expect(motor.motorConstant * i).toBeCloseTo(motor.frictionTorque + motor.loadCoefficient * w * w, 9)
    expect(motorSpeed(0.5, motor)).toBe(0)
    expect(motorCurrent(0.5, motor)).toBeCloseTo(0.025, 12)
  })
  test('duty below the least has no speed', () => {
    expect(speedFromDuty(0.1, 0.2, 400, 2000)).toBeNull()
    expect(speedFromDuty(0.2, 0.2, 400, 2000)).toBe(400)
    expect(speedFromDuty(1, 0.2, 400, 2000)).toBe(2000)
  })
  test('one more volt brings what the solver says', () => {
    const path = { a: 300, b: 50000 }
    const at = (v: number) => operatingPoint(strong, path, { ...asSheet, speed: speedRatio(v, 12, 0.6) }).flow!
    expect(flowPerVolt(strong, path, 9, 12, 0.6)! / ((at(9.001) - at(8.999)) / 0.002)).toBeCloseTo(1, 3)
  })
})

describe('plausibility', () => {
  test('efficiency is zero at both ends', () => {
    expect(staticEfficiency(0, 50, 2)).toBe(0)
    expect(staticEfficiency(0.02, 0, 2)).toBe(0)
    expect(staticEfficiency(0.01, 50, 0)).toBeNull()
  })
  test('claims over the electric power are impossible', () => {
    expect(dataPlausibility(0.05, 100, 1)).toBe('impossible')
    expect(dataPlausibility(0.05, 100, 2)).toBe('optimistic')
    expect(dataPlausibility(0.05, 100, 5)).toBe('plausible')
  })
  test('a fan behind a grille delivers about two thirds of its free air (common practice, no source): usual', () => {
    expect(deliveredClass(0.67, 1)).toBe('usual')
    expect([1.2, 1, 0.2, 0.1].map((r) => deliveredClass(r, 1))).toEqual([
      'implausible',
      'free-air-only',
      'restricted',
      'check',
    ])
  })
})

describe('estimates and slopes', () => {
  test('the band holds its middle, for both kinds', () => {
    for (const kind of ['axial', 'blower'] as const) {
      const band = estimatedBand(kind, 60, 0.02)
      const at = (c: FanCurve | null) => operatingPoint(c!, { a: 0, b: 200000 }).flow!
      expect(at(band.low)).toBeLessThan(at(band.middle))
      expect(at(band.middle)).toBeLessThan(at(band.high))
    }
  })
  test('the slope is the derivative of the pressure', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.0002, max: 0.0248, noNaN: true }), (q) => {
        fc.pre([...strong.q].every((x) => Math.abs(x - q) > 2e-6))
        expect(
          slopeAt(strong, q)! / ((pressureAt(strong, q + 1e-6)! - pressureAt(strong, q - 1e-6)!) / 2e-6),
        ).toBeCloseTo(1, 3)
      }),
    )
    expect(slopeAt(strong, 1)).toBeNull()
    expect(lastFlow(scaleCurve(strong, 2, 1))).toBe(0.05)
    expect(dropOf({ a: 1, b: 2, staticHead: 3 }, 2)).toBe(13)
  })
})
