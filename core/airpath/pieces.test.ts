import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { adapterLoss, hoods, kReducer, kSlideGate, outlets } from './pieces'
import { finChannelDrop, finDrop } from './slit'
import { freeShare } from './pattern'
import { lossTable, tableDrop, tableFlow, tableSlope, type Passage } from './loss-table'
import { commonDrop, commonSlope, flowsOfWays } from './side-by-side'
import { parallelDrop } from './resistance'

const positive = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const quadratic = (b: number, staticHead = 0): Passage => ({ a: 0, b, staticHead, table: null })

describe('hole patterns', () => {
  // geometry: touching circles cover pi/(2 sqrt 3) staggered, pi/4 in square rows (perforated-sheet catalogues print 0.907 and 0.785)
  test.each([
    ['staggered', 0.9069],
    ['square', 0.7854],
    ['mesh', 1],
    ['slots', 1],
  ] as const)('%s reaches %s of the sheet when the holes nearly touch', (pattern, share) => {
    expect(freeShare(pattern, 0.99999, 1)!).toBeCloseTo(share, 3)
  })
  test('3 mm holes at 5 mm, staggered, are a third open', () => {
    expect(freeShare('staggered', 0.003, 0.005)).toBeCloseTo(0.3265, 3)
  })
  test('overlapping holes are refused', () => {
    expect(freeShare('square', 5, 5)).toBeNull()
    expect(freeShare('square', 0, 5)).toBeNull()
  })
})

describe('pieces', () => {
  test('a sudden widening loses what Borda and Carnot say, a cone less', () => {
    expect(kReducer(1, 4, 180)).toBeCloseTo(0.5625, 9)
    expect(kReducer(1, 4, 10)).toBeCloseTo(0.2 * 0.5625, 9)
    expect(kReducer(4, 1, 180)).toBeCloseTo(0.375, 9)
    expect(kReducer(4, 1, 30)).toBeLessThan(0.1)
    expect(kReducer(1, 1, 180)).toBe(0)
  })
  test('a wider cone never loses less', () => {
    fc.assert(
      fc.property(positive(1, 170), positive(1.01, 20), (angle, ratio) => {
        expect(kReducer(1, ratio, angle + 10)).toBeGreaterThanOrEqual(kReducer(1, ratio, angle))
      }),
    )
  })
  test('a slide gate: table values, and none below a quarter', () => {
    expect(kSlideGate(1)).toBeCloseTo(0.1, 9)
    expect(kSlideGate(0.5)).toBeCloseTo(2.1, 9)
    expect(kSlideGate(0.1)).toBeNull()
  })
  test('the bands of hoods and outlets hold their middle', () => {
    for (const p of [...hoods, ...outlets]) {
      expect(p.low).toBeLessThanOrEqual(p.k)
      expect(p.high).toBeGreaterThanOrEqual(p.k)
    }
  })
  test('an adapter box loses the jet and half the second velocity head', () => {
    expect(adapterLoss(0.001, 0.002)).toBeCloseTo(1e6 + 0.5 * 0.25e6, 3)
  })
  test('fins go on above Re 2300, rising and without a fall', () => {
    const fins = { gap: 0.004, height: 0.03, length: 0.08, channels: 6, finThickness: 0.001 }
    expect(finChannelDrop(fins, 0.05, 1.2, 1.81e-5)).toBeNull()
    let last = 0
    for (let q = 0.0005; q < 0.06; q += 0.0005) {
      const drop = finDrop(fins, q, 1.2, 1.81e-5)
      expect(drop).toBeGreaterThan(last)
      last = drop
    }
  })
})

describe('loss tables', () => {
  test('read back what they were made of, both ways', () => {
    fc.assert(
      fc.property(positive(0, 1e4), positive(1e2, 1e8), positive(1e-5, 0.5), (a, b, q) => {
        const table = lossTable(2, (x) => a * x + b * x * x)!
        const exact = 2 + a * q + b * q * q
        expect(tableDrop(table, q) / exact).toBeCloseTo(1, 4)
        expect(tableFlow(table, exact) / q).toBeCloseTo(1, 4)
        expect(tableSlope(table, q) / (a + 2 * b * q)).toBeCloseTo(1, 2)
      }),
    )
  })
  test('nothing moves up to the head', () => {
    const table = lossTable(3, (x) => 1e5 * x * x)!
    expect(tableFlow(table, 3)).toBe(0)
    expect(tableDrop(table, 0)).toBe(0)
  })
})

describe('ways side by side', () => {
  test('agree with the bisected answer, and their flows add up', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(positive(0, 5e3), positive(1e3, 1e7)), { minLength: 2, maxLength: 4 }),
        positive(1e-4, 0.3),
        (ways, q) => {
          const branches = ways.map(([a, b]) => ({ a, b }))
          const passages = branches.map((r) => ({ ...r, staticHead: 0, table: null }))
          expect(commonDrop(passages, q) / parallelDrop(branches, q)!).toBeCloseTo(1, 9)
          expect(flowsOfWays(passages, q).reduce((s, x) => s + x, 0) / q).toBeCloseTo(1, 12)
        },
      ),
      { numRuns: 60 },
    )
  })
  test('equal quadratic ways: four times the ways, a sixteenth of the drop', () => {
    const one = 1e5 * 0.01 ** 2
    const four = [1, 2, 3, 4].map(() => quadratic(1e5))
    expect(commonDrop(four, 0.01)).toBeCloseTo(one / 16, 9)
    expect(commonSlope(four, one / 16)).toBeCloseTo((2 * one) / 16 / 0.01, 6)
  })
  test('a flap opens late: the open way carries all of it before, and every flow adds up at the kink', () => {
    const ways = [quadratic(1e5), quadratic(4e4, 4)]
    expect(flowsOfWays(ways, 0.005)).toEqual([0.005, 0])
    expect(commonDrop(ways, 0.005)).toBeCloseTo(2.5, 9)
    const opens = Math.sqrt(4 / 1e5)
    for (const share of [0.999, 1, 1.0001, 1.01, 1.5, 4]) {
      const flows = flowsOfWays(ways, share * opens)
      const drop = commonDrop(ways, share * opens)
      expect((flows[0]! + flows[1]!) / (share * opens)).toBeCloseTo(1, 12)
      expect((1e5 * flows[0]! ** 2) / drop).toBeCloseTo(1, 5)
      if (flows[1]! > 0) expect((4 + 4e4 * flows[1]! ** 2) / drop).toBeCloseTo(1, 5)
    }
  })
  test('flaps only: nothing moves below the lightest', () => {
    expect(commonDrop([quadratic(1e5, 3), quadratic(1e5, 5)], 1e-6)).toBeCloseTo(3, 6)
    expect(commonDrop([quadratic(1e5, 3)], 0)).toBe(0)
  })
})
