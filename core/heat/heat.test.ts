import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { flowForSinkResistance, sinkProblem, sinkResistanceAt } from './sink'
import { pullDownTime } from './pull-down'

const positive = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const points = [
  { flow: 0.003, kPerW: 1.35 },
  { flow: 0.007, kPerW: 0.82 },
  { flow: 0.014, kPerW: 0.58 },
]

describe('resistance of a sink over airflow', () => {
  test('goes through its points and falls between them', () => {
    for (const p of points) expect(sinkResistanceAt(points, p.flow)).toBeCloseTo(p.kPerW, 9)
    expect(sinkResistanceAt(points, 0.005)).toBeLessThan(1.35)
    expect(sinkResistanceAt(points, 0.005)).toBeGreaterThan(0.82)
  })
  test('one point follows the root law of laminar flow, four times the air is half the resistance', () => {
    const one = [{ flow: 0.005, kPerW: 1 }]
    expect(sinkResistanceAt(one, 0.01)).toBeCloseTo(1 / Math.SQRT2, 9)
    expect(sinkResistanceAt(one, 0.00125)).toBeCloseTo(2, 9)
  })
  test('is not told beyond the data', () => {
    expect(sinkResistanceAt(points, 0.029)).toBeNull()
    expect(sinkResistanceAt(points, 0.0005)).toBeNull()
    expect(flowForSinkResistance(points, 0.1)).toBeNull()
    expect(flowForSinkResistance(points, -1)).toBeNull()
  })
  test('flow and resistance are each other’s inverse', () => {
    fc.assert(
      fc.property(positive(0.001, 0.027), (q) => {
        expect(flowForSinkResistance(points, sinkResistanceAt(points, q)!)! / q).toBeCloseTo(1, 6)
      }),
    )
  })
  test.each([
    [[], 'a point'],
    [[{ flow: 0, kPerW: 1 }], 'above zero'],
    [[points[1]!, points[0]!], 'rising'],
    [[points[0]!, { flow: 0.01, kPerW: 2 }], 'falls'],
  ])('%j is refused', (list, message) => {
    expect(sinkProblem(list)).toContain(message)
  })
})

describe('pulling a warmed box down', () => {
  test('agrees with marching in time', () => {
    const [c, ua, spare, from, to] = [42000, 0.9, 20, 4, 1]
    let theta = from
    let t = 0
    for (; theta > to; t += 0.5) theta -= (0.5 * (spare + ua * theta)) / c
    expect(pullDownTime(c, ua, spare, from, to)! / t).toBeCloseTo(1, 3)
  })
  test('without wall loss it is plain', () => {
    expect(pullDownTime(1000, 0, 10, 3, 1)).toBeCloseTo(200, 9)
  })
  test('near already takes no time, too weak never arrives', () => {
    expect(pullDownTime(1000, 1, 10, 1, 1)).toBe(0)
    expect(pullDownTime(1000, 1, -2, 4, 1)).toBeNull()
  })
})
