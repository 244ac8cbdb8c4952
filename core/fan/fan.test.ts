import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { seeded } from '#core/numeric'
import { asSheet, crossings, dropOf, operatingPoint, speedForFlow, stableFlow } from './operating-point'
import { estimatedCurve } from './estimate'
import { flowAt, lastFlow, makeCurve, pressureAt, scaleCurve, stallLimit, type FanCurve } from './curve'

const curve = (points: [number, number][]): FanCurve => {
  const made = makeCurve(points.map(([q, p]) => ({ q, p })))
  if (!made.ok) throw new Error(made.message)
  return made.curve
}
// invented: a falling curve, and one with a dip
const falling = curve([
  [0, 60],
  [0.005, 52],
  [0.01, 40],
  [0.015, 22],
  [0.02, 0],
])
const dipped = curve([
  [0, 60],
  [0.004, 45],
  [0.008, 30],
  [0.011, 34],
  [0.015, 20],
  [0.02, 0],
])

/** Random falling curves of 2 to 9 points. */
const anyFalling = fc
  .array(
    fc.tuple(fc.double({ min: 1e-4, max: 5e-3, noNaN: true }), fc.double({ min: 0.1, max: 20, noNaN: true })),
    { minLength: 1, maxLength: 8 },
  )
  .map((steps) => {
    let q = 0
    let p = steps.reduce((s, [, d]) => s + d, 0)
    const points: [number, number][] = [[q, p]]
    for (const [dq, dp] of steps) points.push([(q += dq), Math.max(0, (p -= dp))])
    points.at(-1)![1] = 0
    return curve(points)
  })
const coefficient = fc.double({ min: 0, max: 5e5, noNaN: true })

describe('the curve', () => {
  test.each([
    ['one point', [[0, 5]], 'too-few-points'],
    [
      'flow repeats',
      [
        [0, 5],
        [0, 4],
      ],
      'flow-not-rising',
    ],
    [
      'flow falls',
      [
        [0, 5],
        [2, 4],
        [1, 3],
      ],
      'flow-not-rising',
    ],
    [
      'negative flow',
      [
        [-1, 5],
        [1, 4],
      ],
      'negative-flow',
    ],
    [
      'negative pressure',
      [
        [0, 5],
        [1, -1],
      ],
      'negative-pressure',
    ],
    [
      'not a number',
      [
        [0, Number.NaN],
        [1, 1],
      ],
      'not-a-number',
    ],
  ] as const)('%s is refused', (_, points, problem) => {
    expect(makeCurve(points.map(([q, p]) => ({ q: q!, p: p! })))).toMatchObject({ ok: false, problem })
  })
  test('nothing is extrapolated', () => {
    expect(pressureAt(falling, -1e-6)).toBeNull()
    expect(pressureAt(falling, 0.0201)).toBeNull()
    expect(flowAt(falling, 61)).toBeNull()
  })
  test('it never overshoots its data points', () => {
    fc.assert(
      fc.property(anyFalling, fc.double({ min: 0, max: 1, noNaN: true }), (c, t) => {
        const q = t * lastFlow(c)
        const k = [...c.q].findLastIndex((x) => x <= q)
        const p = pressureAt(c, q)!
        const around = [c.p[k]!, c.p[Math.min(k + 1, c.p.length - 1)]!]
        expect(p).toBeGreaterThanOrEqual(Math.min(...around) - 1e-9)
        expect(p).toBeLessThanOrEqual(Math.max(...around) + 1e-9)
      }),
    )
  })
  test('flow at a pressure is on the right-hand branch', () => {
    expect(stallLimit(dipped)).toBe(0.011)
    expect(stallLimit(falling)).toBeNull()
    expect(flowAt(dipped, 32)!).toBeGreaterThan(0.011)
  })
  test('a curve scaled by one is the curve', () => {
    const { q, p, m } = scaleCurve(falling, 1, 1)
    expect({ q, p, m }).toEqual({ q: falling.q, p: falling.p, m: falling.m })
  })
  test('an estimated curve follows its power law', () => {
    const c = estimatedCurve(50, 0.02, 2)!
    for (const x of [0.1, 0.33, 0.5, 0.77, 0.95])
      expect(pressureAt(c, x * 0.02)! / (50 * (1 - x ** 2))).toBeCloseTo(1, 2)
    expect(estimatedCurve(0, 0.02, 1)).toBeNull()
  })
})

describe('the operating point', () => {
  test('lies on both curves, and there is exactly one for a falling fan', () => {
    fc.assert(
      fc.property(anyFalling, coefficient, coefficient, (c, a, b) => {
        const op = operatingPoint(c, { a, b })
        expect(op.status).toBe('one')
        const scale = c.p[0]!
        expect(
          Math.abs(pressureAt(c, Math.min(op.flow!, lastFlow(c)))! - dropOf({ a, b }, op.flow!)) / scale,
        ).toBeLessThan(1e-6)
      }),
    )
  })
  test('flow falls when the path gets harder', () => {
    fc.assert(
      fc.property(anyFalling, coefficient, fc.double({ min: 1, max: 1e5, noNaN: true }), (c, b, more) => {
        expect(operatingPoint(c, { a: 0, b: b + more }).flow!).toBeLessThanOrEqual(
          operatingPoint(c, { a: 0, b }).flow! + 1e-12,
        )
      }),
    )
  })
  test('an independent bisection finds the same flow', () => {
    fc.assert(
      fc.property(anyFalling, coefficient, coefficient, (c, a, b) => {
        let low = 0
        let high = lastFlow(c)
        for (let i = 0; i < 100; i++) {
          const middle = (low + high) / 2
          if (pressureAt(c, middle)! > a * middle + b * middle ** 2) low = middle
          else high = middle
        }
        expect(stableFlow(c, { a, b }, asSheet)).toBeCloseTo((low + high) / 2, 9)
      }),
    )
  })
  test('a search reads what a scan reads: any curve, any drive, many of them in shared memory', () => {
    const random = seeded(7)
    const curves = Array.from({ length: 600 }, (_, i) => {
      // one of them is longer than a piece of the memory that they share
      const n = i === 300 ? 1500 : 2 + Math.floor(random() * 20)
      let q = -0.001
      const points = Array.from({ length: n }, () => ({ q: (q += 0.001 + 0.002 * random()), p: 80 * random() }))
      if (i % 2) points.sort((a, b) => a.q - b.q).forEach((x, k) => (x.p = 80 - (80 * k) / n))
      return curve(points.map((x) => [x.q, x.p]))
    })
    let found = 0
    for (const one of curves)
      for (let k = 0; k < 6; k++) {
        const path = { a: 4000 * random(), b: 4e6 * random() ** 4, staticHead: k === 5 ? 10 * random() : 0 }
        const drive = {
          speed: 0.3 + random(),
          densityRatio: 0.8 + 0.3 * random(),
          parallel: 1 + (k % 3),
          series: 1 + (k % 2),
        }
        const scanned = crossings(one, path, drive).find((c) => c.stable)?.flow ?? -1
        const flow = stableFlow(one, path, drive)
        if (scanned > 0) expect(Math.abs(flow / scanned - 1)).toBeLessThan(1e-11)
        else expect(flow).toBe(scanned)
        if (scanned > 0) found++
      }
    expect(found).toBeGreaterThan(2000)
  })
  test('n in parallel equal a fan of n times the flow, n in series one of n times the pressure', () => {
    const path = { a: 200, b: 80000 }
    expect(operatingPoint(falling, path, { ...asSheet, parallel: 3 }).flow).toBeCloseTo(
      operatingPoint(scaleCurve(falling, 3, 1), path).flow!,
      10,
    )
    expect(operatingPoint(falling, path, { ...asSheet, series: 2 }).flow).toBeCloseTo(
      operatingPoint(scaleCurve(falling, 1, 2), path).flow!,
      10,
    )
    expect(operatingPoint(falling, path, { ...asSheet, speed: 0.6 }).flow).toBeCloseTo(
      operatingPoint(scaleCurve(falling, 0.6, 0.36), path).flow!,
      10,
    )
  })
  test('on a purely quadratic path the flow follows the speed', () => {
    const path = { a: 0, b: 90000 }
    expect(
      operatingPoint(falling, path, { ...asSheet, speed: 0.5 }).flow! / operatingPoint(falling, path).flow!,
    ).toBeCloseTo(0.5, 8)
  })
  test('a dip with a head has several crossings; the lowest stable one is planned with', () => {
    const op = operatingPoint(dipped, { a: 0, b: 0, staticHead: 32 })
    expect(op.status).toBe('several')
    expect(op.crossings.map((c) => c.stable)).toEqual([true, false, true])
    expect(op.flow).toBe(op.crossings[0]!.flow)
    expect(op.region).toBe('stall-risk')
  })
  test('what has no operating point says why', () => {
    expect(operatingPoint(falling, { a: 0, b: 0, staticHead: 70 })).toMatchObject({
      status: 'none-opposed',
      flow: null,
    })
    expect(
      operatingPoint(
        curve([
          [0.002, 40],
          [0.01, 30],
        ]),
        { a: 0, b: 1000 },
      ),
    ).toMatchObject({ status: 'right-of-data', flow: null })
    expect(
      operatingPoint(
        curve([
          [0.01, 40],
          [0.02, 30],
        ]),
        { a: 0, b: 1e7 },
      ),
    ).toMatchObject({ status: 'left-of-data', flow: null })
    expect(operatingPoint(falling, { a: 0, b: 1 }, { ...asSheet, speed: 0 })).toMatchObject({
      status: 'not-turning',
      flow: 0,
    })
  })
  test('a touch without crossing is no operating point; free flow and blocked path are answers', () => {
    expect(crossings(falling, { a: 0, b: 0, staticHead: 60 }).every((c) => c.flow === 0)).toBe(true)
    expect(operatingPoint(falling, { a: 0, b: 0 }).flow).toBe(0.02)
    expect(operatingPoint(falling, { a: 0, b: 1e12 }).flow!).toBeLessThan(1e-5)
  })
  test('the speed for a flow gives that flow', () => {
    const path = { a: 300, b: 60000 }
    const s = speedForFlow(falling, path, 0.008)!
    expect(operatingPoint(falling, path, { ...asSheet, speed: s }).flow).toBeCloseTo(0.008, 6)
    expect(speedForFlow(falling, path, 0.03)).toBeNull()
  })
})
